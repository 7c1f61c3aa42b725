using JustRight.Core.Directory;

namespace JustRight.Core.Rights;

/// <summary>Memberships and entries that are thought away together, to answer what their removal would do.</summary>
/// <param name="Memberships">Memberships of domain groups, as nodes.</param>
/// <param name="Entries">Entries at places: who is taken off the list of which right.</param>
public sealed record Cuts(IReadOnlySet<(int Member, int Group)> Memberships, IReadOnlySet<(Sid Holder, string Right)> Entries)
{
    /// <summary>Nothing thought away.</summary>
    public static Cuts None { get; } = new(new HashSet<(int, int)>(), new HashSet<(Sid, string)>());

    /// <summary>One more membership.</summary>
    public Cuts With(int member, int group) => this with
    {
        Memberships = new HashSet<(int, int)>(Memberships) { (member, group) },
    };

    /// <summary>One more entry.</summary>
    public Cuts With(Sid holder, Right right) => this with
    {
        Entries = new HashSet<(Sid, string)>(Entries) { (holder, right.Key) },
    };
}
