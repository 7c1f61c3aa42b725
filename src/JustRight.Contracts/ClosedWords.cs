using System.ComponentModel.DataAnnotations;

namespace JustRight.Contracts;

/// <summary>A role of somebody who is signed in.</summary>
[AttributeUsage(AttributeTargets.Property)]
internal sealed class RoleWordAttribute() : AllowedValuesAttribute("reader", "planner", "granter", "owner");

/// <summary>The stage of an install; empty for one that cannot be read.</summary>
[AttributeUsage(AttributeTargets.Property)]
internal sealed class StageWordAttribute() : AllowedValuesAttribute("planned", "installed", "retiring", "");

/// <summary>How an account is used.</summary>
[AttributeUsage(AttributeTargets.Property)]
internal sealed class WorksAsWordAttribute() : AllowedValuesAttribute("service", "job", "pool", "setup", "bind", "person");

/// <summary>A team that can make a change.</summary>
[AttributeUsage(AttributeTargets.Property)]
internal sealed class TeamWordAttribute() : AllowedValuesAttribute("directory", "host", "database", "product");

/// <summary>What gives a right: a grant of ours, or the product's own setup.</summary>
[AttributeUsage(AttributeTargets.Property)]
internal sealed class GivenByWordAttribute() : AllowedValuesAttribute("us", "setup");

/// <summary>A kind of need; <c>account</c> for what an account needs of itself.</summary>
[AttributeUsage(AttributeTargets.Property)]
internal sealed class NeedKindWordAttribute() : AllowedValuesAttribute(
    "logon", "privilege", "local-group", "domain-group", "instance-role", "instance-permission", "database-role",
    "database-permission", "database-owner", "directory", "product-role", "service", "account");

/// <summary>A verdict on a right.</summary>
[AttributeUsage(AttributeTargets.Property)]
internal sealed class VerdictWordAttribute() : AllowedValuesAttribute(
    "met", "missing", "pending", "unseen", "excess", "forbidden", "done");

/// <summary>What was said of something that was off: a verdict, or nothing for a finding.</summary>
[AttributeUsage(AttributeTargets.Property)]
internal sealed class OffWordAttribute() : AllowedValuesAttribute("missing", "pending", "unseen", "excess", "forbidden", "");

/// <summary>Why an object refuses, or could not be judged.</summary>
[AttributeUsage(AttributeTargets.Property)]
internal sealed class CauseWordAttribute() : AllowedValuesAttribute(
    "nothing-gives-it", "inheritance-stops", "denied", "protected-group", "left-by-protected-group", "not-understood",
    "membership-unread", "unread", "not-of-its-class");

/// <summary>The answer to a question of access.</summary>
[AttributeUsage(AttributeTargets.Property)]
internal sealed class AnswerWordAttribute() : AllowedValuesAttribute("yes", "no", "unseen");

/// <summary>The kind of thing that can be done to one object of a directory.</summary>
[AttributeUsage(AttributeTargets.Property)]
internal sealed class ObjectActWordAttribute() : AllowedValuesAttribute(
    "itself", "extended-right", "validated-write", "write", "read", "create", "delete-child");

/// <summary>The family of a directory that people sign in with.</summary>
[AttributeUsage(AttributeTargets.Property)]
internal sealed class FamilyWordAttribute() : AllowedValuesAttribute("ad-like", "inetorgperson");

/// <summary>The state of long work, or of a proposal.</summary>
[AttributeUsage(AttributeTargets.Property)]
internal sealed class JobStateWordAttribute() : AllowedValuesAttribute(
    "queued", "running", "done", "failed", "interrupted", "proposed", "approved", "void", "withdrawn");

/// <summary>How something is reached; empty for an estate that cannot be read.</summary>
[AttributeUsage(AttributeTargets.Property)]
internal sealed class ReachWordAttribute() : AllowedValuesAttribute(
    "simulation", "ldaps", "file", "ssh", "tls", "handed-over", "none", "");
