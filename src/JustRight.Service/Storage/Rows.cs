namespace JustRight.Service.Storage;

/// <summary>A sheet, estate or install, as its author wrote it.</summary>
public sealed class DocumentRow
{
    public int Id { get; set; }

    /// <summary><c>sheet</c>, <c>estate</c> or <c>install</c>.</summary>
    public required string Kind { get; set; }

    public required string Name { get; set; }

    /// <summary>The file's name, for positions.</summary>
    public required string File { get; set; }

    public required string Text { get; set; }

    public DateTimeOffset AddedAt { get; set; }

    public required string AddedBy { get; set; }
}

/// <summary>A name that was free when it was chosen and stays an install's own.</summary>
public sealed class SettledNameRow
{
    public int Id { get; set; }

    public required string Install { get; set; }

    /// <summary><c>account</c> or <c>group</c>.</summary>
    public required string Kind { get; set; }

    public required string Key { get; set; }

    public required string Name { get; set; }
}

/// <summary>A survey.</summary>
public sealed class SurveyRow
{
    public int Id { get; set; }

    public required string Estate { get; set; }

    public DateTimeOffset TakenAt { get; set; }

    public required string Json { get; set; }
}

/// <summary>The people and groups of a directory that people sign in with, as last read.</summary>
public sealed class PeopleRow
{
    public int Id { get; set; }

    public required string Estate { get; set; }

    public required string Directory { get; set; }

    public DateTimeOffset ReadAt { get; set; }

    /// <summary>The snapshot as JSON, packed: it may hold a hundred thousand people.</summary>
    public required byte[] Packed { get; set; }
}

/// <summary>What somebody read of an estate's directory and gave as a file; the latest only.</summary>
public sealed class DirectoryFileRow
{
    public int Id { get; set; }

    public required string Estate { get; set; }

    /// <summary>The file's name.</summary>
    public required string File { get; set; }

    /// <summary>When it was read from the directory.</summary>
    public DateTimeOffset ReadAt { get; set; }

    public DateTimeOffset AddedAt { get; set; }

    public required string AddedBy { get; set; }

    /// <summary>The attributes we judge by, as LDIF, compressed with gzip [RFC 1952].</summary>
    public required byte[] Content { get; set; }
}

/// <summary>Facts of a host that its owner handed over; the latest only.</summary>
public sealed class HostFactsRow
{
    public int Id { get; set; }

    public required string Estate { get; set; }

    public required string Host { get; set; }

    /// <summary>The file's name.</summary>
    public required string File { get; set; }

    /// <summary>When they were read from the host.</summary>
    public DateTimeOffset ReadAt { get; set; }

    public DateTimeOffset AddedAt { get; set; }

    public required string AddedBy { get; set; }

    /// <summary>The JSON as it was given, compressed with gzip [RFC 1952].</summary>
    public required byte[] Content { get; set; }
}

/// <summary>The schema of a directory, of which many surveys share one version.</summary>
public sealed class SchemaRow
{
    public int Id { get; set; }

    public required string Version { get; set; }

    public required string Json { get; set; }
}

/// <summary>Long work.</summary>
public sealed class JobRow
{
    public required string Id { get; set; }

    /// <summary><c>survey</c>, <c>verify</c>, <c>grant</c>, <c>trace</c>, <c>mend</c> or <c>undo</c>.</summary>
    public required string Kind { get; set; }

    /// <summary>The estate or install.</summary>
    public required string Subject { get; set; }

    public required string State { get; set; }

    public required string StartedBy { get; set; }

    public DateTimeOffset CreatedAt { get; set; }

    public DateTimeOffset? EndedAt { get; set; }

    public string? Message { get; set; }

    /// <summary>What was asked, for a trace; the trace, for a mend.</summary>
    public string? OrderJson { get; set; }

    /// <summary>What came out, for a trace and a mend.</summary>
    public string? ResultJson { get; set; }

    /// <summary>The job whose changes it undoes, or null.</summary>
    public string? Undoes { get; set; }

    /// <summary>For a proposal: the hash of the documents that it rests on; null for what needed no second person.</summary>
    public string? Basis { get; set; }

    /// <summary>Who released it, or null.</summary>
    public string? ReleasedBy { get; set; }

    public DateTimeOffset? ReleasedAt { get; set; }

    public List<StepRow> Steps { get; set; } = [];
}

/// <summary>The journal of one step of a grant.</summary>
public sealed class StepRow
{
    public int Id { get; set; }

    public required string JobId { get; set; }

    public int Number { get; set; }

    public required string ChangeJson { get; set; }

    public required string Words { get; set; }

    public required string Giver { get; set; }

    public required string Place { get; set; }

    /// <summary><c>waiting</c>, <c>intended</c>, <c>made</c>, <c>skipped</c> or <c>failed</c>.</summary>
    public required string State { get; set; }

    /// <summary>What was seen before.</summary>
    public string? Before { get; set; }

    /// <summary>What was seen after.</summary>
    public string? After { get; set; }

    public DateTimeOffset? At { get; set; }
}

/// <summary>An entry of the log. Never changed, never deleted.</summary>
public sealed class LogRow
{
    public long Number { get; set; }

    public DateTimeOffset At { get; set; }

    public required string Who { get; set; }

    public required string Action { get; set; }

    public required string Subject { get; set; }

    public required string Detail { get; set; }

    public required string Hash { get; set; }
}

/// <summary>A token; only its hash is kept.</summary>
public sealed class TokenRow
{
    public int Id { get; set; }

    public required string Name { get; set; }

    public required string Role { get; set; }

    public required string Hash { get; set; }

    public DateTimeOffset CreatedAt { get; set; }

    public DateTimeOffset ExpiresAt { get; set; }

    public DateTimeOffset? LastUsedAt { get; set; }
}

/// <summary>A one-time code of a sign-in link; only its hash is kept.</summary>
public sealed class CodeRow
{
    public int Id { get; set; }

    public required string Hash { get; set; }

    public DateTimeOffset ExpiresAt { get; set; }
}

/// <summary>A secret, encrypted.</summary>
public sealed class SecretRow
{
    public int Id { get; set; }

    public required string Name { get; set; }

    public required string Protected { get; set; }

    public DateTimeOffset SetAt { get; set; }

    public required string SetBy { get; set; }
}

/// <summary>A password a grant made, encrypted until it is handed over.</summary>
public sealed class PasswordRow
{
    public int Id { get; set; }

    public required string Install { get; set; }

    /// <summary><c>DOMAIN\name</c>.</summary>
    public required string Account { get; set; }

    /// <summary>Encrypted; null once handed over.</summary>
    public string? Protected { get; set; }

    public DateTimeOffset CreatedAt { get; set; }

    public DateTimeOffset? HandedOverAt { get; set; }

    public string? HandedOverBy { get; set; }
}

/// <summary>A fit that was other than the one before it.</summary>
public sealed class FitRow
{
    public int Id { get; set; }

    public required string Install { get; set; }

    /// <summary>Counted from 1 within the install.</summary>
    public int Number { get; set; }

    /// <summary>The first survey that showed it.</summary>
    public DateTimeOffset From { get; set; }

    /// <summary>The last survey that showed it.</summary>
    public DateTimeOffset Until { get; set; }

    /// <summary>How many surveys showed it.</summary>
    public int Seen { get; set; }

    /// <summary>Its counts and words, as JSON.</summary>
    public required string LeaningJson { get; set; }

    /// <summary>What it said of each right, as JSON, packed.</summary>
    public required byte[] Packed { get; set; }

    /// <summary>The survey that showed it first; null where that was not noted.</summary>
    public int? SurveyId { get; set; }
}

/// <summary>A review of an install. Never changed.</summary>
public sealed class ReviewRow
{
    public int Id { get; set; }

    public required string Install { get; set; }

    /// <summary>Counted from 1 within the install.</summary>
    public int Number { get; set; }

    /// <summary>The kept fit that was looked at, by its number.</summary>
    public int Fit { get; set; }

    /// <summary>Its counts and words, as JSON.</summary>
    public required string LeaningJson { get; set; }

    public required string By { get; set; }

    public required string WrittenBy { get; set; }

    public DateTimeOffset At { get; set; }

    public DateOnly? NextBy { get; set; }

    public string? Remark { get; set; }

    /// <summary>What was off, with what covered it, as JSON.</summary>
    public required string OffJson { get; set; }
}

/// <summary>That somebody accepted what is off.</summary>
public sealed class ExceptionRow
{
    public int Id { get; set; }

    public required string Install { get; set; }

    /// <summary>The id of the judgement or finding.</summary>
    public required string Target { get; set; }

    public required string Words { get; set; }

    /// <summary>Null for a finding.</summary>
    public Core.Fit.Verdict? Verdict { get; set; }

    public required string Why { get; set; }

    public required string By { get; set; }

    public required string WrittenBy { get; set; }

    public DateTimeOffset At { get; set; }

    public DateTimeOffset Until { get; set; }

    /// <summary>When somebody ended it before its time, or null.</summary>
    public DateTimeOffset? EndedAt { get; set; }

    public string? EndedBy { get; set; }
}

/// <summary>The renewal of a password. Its run-book is its journal.</summary>
public sealed class RenewalRow
{
    public required string Id { get; set; }

    public required string Estate { get; set; }

    /// <summary>The logon name.</summary>
    public required string Account { get; set; }

    public required string StartedBy { get; set; }

    public DateTimeOffset StartedAt { get; set; }

    public DateTimeOffset? EndedAt { get; set; }

    public required string BookJson { get; set; }

    /// <summary>The new password, encrypted, until the renewal is over.</summary>
    public string? NewProtected { get; set; }

    /// <summary>The old one, encrypted, until the renewal is over; null when it was not known.</summary>
    public string? OldProtected { get; set; }
}

/// <summary>A place where a password is typed, that a person told of.</summary>
public sealed class ToldPlaceRow
{
    public int Id { get; set; }

    public required string Estate { get; set; }

    public required string Account { get; set; }

    public required string Host { get; set; }

    public required string Where { get; set; }

    public required string Setting { get; set; }

    public required string Breaks { get; set; }

    public string? Reference { get; set; }

    public DateTimeOffset ToldAt { get; set; }

    public required string ToldBy { get; set; }
}

/// <summary>What a person said they saw inside a product. Never changed: a later word counts instead.</summary>
public sealed class ConfirmationRow
{
    public int Id { get; set; }

    public required string Install { get; set; }

    /// <summary>The planned grant.</summary>
    public required string GrantId { get; set; }

    /// <summary>The account's key.</summary>
    public required string Account { get; set; }

    /// <summary>The identity inside the product.</summary>
    public required string Role { get; set; }

    /// <summary>The logon name of what is mapped.</summary>
    public required string Principal { get; set; }

    public string? Sid { get; set; }

    /// <summary>The operations compared, one a line.</summary>
    public required string Lets { get; set; }

    public bool Held { get; set; }

    public required string SeenBy { get; set; }

    public required string WrittenBy { get; set; }

    public DateTimeOffset At { get; set; }

    public DateTimeOffset Until { get; set; }
}
