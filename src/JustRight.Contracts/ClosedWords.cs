using System.ComponentModel.DataAnnotations;

namespace JustRight.Contracts;

/// <summary>A role of somebody who is signed in.</summary>
[AttributeUsage(AttributeTargets.Property)]
internal sealed class RoleWordAttribute() : AllowedValuesAttribute("reader", "planner", "granter", "owner");

/// <summary>The stage of an install; empty for one that cannot be read.</summary>
[AttributeUsage(AttributeTargets.Property)]
internal sealed class StageWordAttribute() : AllowedValuesAttribute("planned", "installed", "retiring", "");

/// <summary>How a need of one release stands to the other's.</summary>
[AttributeUsage(AttributeTargets.Property)]
internal sealed class NeedChangeWordAttribute() : AllowedValuesAttribute("anew", "no-more", "differently");

/// <summary>A kind of thing that a search finds.</summary>
[AttributeUsage(AttributeTargets.Property)]
internal sealed class FoundKindWordAttribute() : AllowedValuesAttribute(
    "install", "sheet", "estate", "host", "instance", "account", "group", "run", "log");

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
    "logon", "kept-out", "privilege", "local-group", "domain-group", "spn", "delegates-to", "instance-role",
    "instance-permission", "database-role", "database-permission", "database-owner", "directory", "product-role", "task",
        "service",
    "account");

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
    "queued", "running", "waiting", "done", "failed", "stopped", "interrupted", "proposed", "approved", "void", "withdrawn");

/// <summary>How far a step of a run has come.</summary>
[AttributeUsage(AttributeTargets.Property)]
internal sealed class StepStateWordAttribute() : AllowedValuesAttribute(
    "waiting", "intended", "made", "already-so", "refused", "failed", "skipped", "abandoned", "dropped", "undone");

/// <summary>How something is reached; empty for an estate that cannot be read.</summary>
[AttributeUsage(AttributeTargets.Property)]
internal sealed class ReachWordAttribute() : AllowedValuesAttribute(
    "simulation", "ldaps", "file", "ssh", "tls", "handed-over", "none", "");

/// <summary>What is behind a check of a sign-in test that does not pass, or behind somebody who is not found.</summary>
[AttributeUsage(AttributeTargets.Property)]
internal sealed class SignInCauseWordAttribute() : AllowedValuesAttribute(
    "name-unknown", "not-allowed-there", "silent", "address-silent", "not-a-directory", "plain-port", "tls-port",
    "start-tls-refused", "tls-failed", "old-tls", "unprotected", "protection-required", "certificate-expired",
    "certificate-not-yet-valid", "certificate-name", "certificate-authority", "certificate-other", "address-certificate",
    "not-known-yet", "password-not-known", "password-withheld", "wrong-password", "bad-name", "locked", "disabled",
    "account-expired", "password-expired", "must-change-password", "not-here-or-now", "sign-in-refused", "taken-for-nobody",
    "base-missing", "base-elsewhere", "parts-elsewhere", "may-not-search", "size-limit", "paging-refused", "search-refused",
    "group-missing", "group-empty", "no-back-link", "primary-group", "only-nested", "not-in-group", "not-in-directory",
    "outside-base", "twice-below-base", "in-two-places", "nothing-to-type", "shared-name", "attribute-empty",
    "not-in-catalog", "not-for-filter", "nobody-found", "not-as-expected",
    "nothing-expected", "enters", "built-in-groups", "holds-more", "password-expires", "anonymous-reading", "not-said",
    "only-the-product", "too-slow", "broken", "out-of-time", "unexpected");
