using static JustRight.Core.Tests.Differential.SmallWorld;

namespace JustRight.Core.Tests.Differential;

/// <summary>
/// What the account of a small world can do, worked out a second time and the plain way: sets of names, and the rules of the
/// documentation one after the other. Written without a look at how the product does it.
/// </summary>
internal sealed class PlainModel
{
    private static readonly string[] ReadingOfSchema = ["SELECT SCHEMA::s", "CONTROL SCHEMA::s", "SELECT", "CONTROL"];

    private readonly SmallWorld _world;
    private readonly HashSet<string> _token = [Account, Everyone, DomainUsers];
    private readonly List<Entrant> _logins;
    private readonly List<Entrant> _users;
    private readonly HashSet<string> _roles;
    private readonly HashSet<string> _rolesWithin;

    public PlainModel(SmallWorld world)
    {
        _world = world;
        for (var before = 0; before < _token.Count;)
        {
            before = _token.Count;
            foreach (var group in Groups.Where(g => !world.ForMail.Contains(g) && world.Members[g].Any(_token.Contains)))
                _token.Add(group);
        }

        var atSignIn = TokenOnHost(withService: false);
        _logins = [.. world.Logins.Where(l => atSignIn.Contains(l.Name))];
        _users = [.. world.Users.Where(u => atSignIn.Contains(u.Name))];
        _roles = RolesOf(_logins, world.Roles);
        _rolesWithin = RolesOf(_users, world.RolesWithin);
        if (world.IsOwner) _rolesWithin.Add("db_owner");
    }

    private bool IsSysadmin => _roles.Contains("sysadmin");

    /// <summary>Who the account is on the host: its token, and the local groups that hold one of it.</summary>
    /// <param name="withService">Whether it came in as a service does.</param>
    private HashSet<string> TokenOnHost(bool withService)
    {
        var token = new HashSet<string>(_token);
        if (withService) token.Add(Service);
        return [.. token, .. LocalGroups.Where(g => _world.Local[g].Any(token.Contains)).Select(g => "@" + g)];
    }

    public bool HasGroup(string group) => _token.Contains(group);

    public bool HasLocalGroup(string group) => TokenOnHost(MayLogOnAsService).Contains("@" + group);

    public Answer LogsOn(string type) => new(
        Stands($"Se{type}LogonRight", withService: false), !Stands($"SeDeny{type}LogonRight", withService: false));

    public bool HasPrivilege(string constant) => Stands(constant, MayLogOnAsService);

    private bool MayLogOnAsService => Stands("SeServiceLogonRight", withService: false);

    private bool Stands(string list, bool withService) => _world.OnList[list].Any(TokenOnHost(withService).Contains);

    public Answer InInstanceRole(string role) => new(
        _roles.Contains(role) || (IsSysadmin && role != "pourers"), GetsIn);

    public Answer AtInstance(string permission)
    {
        var covering = CoveringAtInstance(permission);
        var byRole = _roles.Contains("dbcreator") && covering.Intersect(["ALTER ANY DATABASE", "CREATE ANY DATABASE"]).Any();
        return new(
            IsSysadmin || byRole || covering.Any(p => IsEntered(_world.Entries, p, false, _logins, _roles)),
            GetsIn && (IsSysadmin || !covering.Any(p => IsEntered(_world.Entries, p, true, _logins, _roles))));
    }

    public Answer OwnsDatabase => new(_world.IsOwner, GetsIn);

    public Answer InDatabaseRole(string role)
    {
        var isImplied = role is "db_datareader" && _rolesWithin.Contains("db_owner")
            || IsSysadmin && role is not "clerks" and not "db_denydatareader";
        return new(_rolesWithin.Contains(role) || isImplied, GetsIn && Enters);
    }

    public Answer InDatabase(string permission)
    {
        var covering = CoveringWithin(permission);
        var byRole = _rolesWithin.Contains("db_owner")
            || (_rolesWithin.Contains("db_datareader") && covering.Contains("SELECT"));
        string[] above = covering.Contains("ALTER") ? ["ALTER ANY DATABASE", "CONTROL SERVER"] : ["CONTROL SERVER"];
        var fromAbove = above.Any(p => AtServer(p, false)) || (covering.Contains("ALTER") && _roles.Contains("dbcreator"));
        var isHeld = IsSysadmin || byRole || fromAbove || covering.Any(p => Within(p, false));
        var isDenied = covering.Any(p => Within(p, true))
            || (_rolesWithin.Contains("db_denydatareader") && covering.Contains("SELECT"))
            || above.Any(p => AtServer(p, true));
        return new(isHeld, GetsIn && Enters && (IsAbove || !isDenied));
    }

    /// <summary>Whom a denial in the database does not reach.</summary>
    private bool IsAbove => IsSysadmin || _world.IsOwner;

    /// <summary>
    /// A login that may connect, or something that brings that along; no denial of it but for sysadmin; and no login of its
    /// own that is switched off.
    /// </summary>
    private bool GetsIn
    {
        get
        {
            if (_logins.Any(l => l.Disabled)) return false;
            if (IsSysadmin) return true;
            var may = _logins.Any(l => l.MayConnect) || AtServer("CONNECT SQL", false) || AtServer("CONTROL SERVER", false);
            return may && !AtServer("CONNECT SQL", true) && !AtServer("CONTROL SERVER", true);
        }
    }

    private bool Enters
    {
        get
        {
            if (IsAbove) return true;
            var may = _users.Any(u => u.MayConnect) || (_world.AdmitsGuests && _logins.Count > 0)
                || Within("CONNECT", false) || Within("CONTROL", false) || AtServer("CONTROL SERVER", false)
                || _rolesWithin.Contains("db_owner");
            return may && !Within("CONNECT", true) && !Within("CONTROL", true);
        }
    }

    private bool AtServer(string permission, bool denies) => IsEntered(_world.Entries, permission, denies, _logins, _roles);

    private bool Within(string permission, bool denies) =>
        IsEntered(_world.EntriesWithin, permission, denies, _users, _rolesWithin, _world.AdmitsGuests && _logins.Count > 0);

    private static bool IsEntered(
        IReadOnlyList<Entry> entries, string permission, bool denies, List<Entrant> mine, HashSet<string> roles,
        bool isGuest = false) =>
        entries.Any(e => e.Denies == denies && (e.On is null ? e.Permission : $"{e.Permission} {e.On}") == permission
            && (mine.Any(l => l.Name == e.Holder) || roles.Contains(e.Holder.TrimStart(':'))
                || (e.Holder == ":" + Public && (mine.Count > 0 || isGuest))));

    private static HashSet<string> RolesOf(List<Entrant> mine, IReadOnlyDictionary<string, string[]> roles)
    {
        var found = new HashSet<string>();
        for (var before = -1; before < found.Count;)
        {
            before = found.Count;
            foreach (var (role, members) in roles)
                if (members.Any(m => mine.Any(l => l.Name == m) || (m.StartsWith(':') && found.Contains(m[1..]))))
                    found.Add(role);
        }

        return found;
    }

    private static string[] CoveringAtInstance(string permission) => permission switch
    {
        "VIEW SERVER PERFORMANCE STATE" =>
            ["VIEW SERVER PERFORMANCE STATE", "VIEW SERVER STATE", "ALTER SERVER STATE", "CONTROL SERVER"],
        "VIEW SERVER STATE" => ["VIEW SERVER STATE", "ALTER SERVER STATE", "CONTROL SERVER"],
        "CREATE ANY DATABASE" => ["CREATE ANY DATABASE", "ALTER ANY DATABASE", "CONTROL SERVER"],
        "CONTROL SERVER" => ["CONTROL SERVER"],
        _ => throw new ArgumentException($"The model knows no {permission}.", nameof(permission)),
    };

    private static string[] CoveringWithin(string permission) => permission switch
    {
        "SELECT" => ["SELECT", "CONTROL"],
        "SELECT SCHEMA::s" => ReadingOfSchema,
        "SELECT OBJECT::s.p" => ["SELECT OBJECT::s.p", "CONTROL OBJECT::s.p", .. ReadingOfSchema],
        "EXECUTE OBJECT::s.p" =>
            ["EXECUTE OBJECT::s.p", "CONTROL OBJECT::s.p", "EXECUTE SCHEMA::s", "CONTROL SCHEMA::s", "EXECUTE", "CONTROL"],
        "ALTER SCHEMA::s" => ["ALTER SCHEMA::s", "CONTROL SCHEMA::s", "ALTER ANY SCHEMA", "ALTER", "CONTROL"],
        "TAKE OWNERSHIP OBJECT::s.p" =>
            ["TAKE OWNERSHIP OBJECT::s.p", "CONTROL OBJECT::s.p", "CONTROL SCHEMA::s", "CONTROL"],
        _ => throw new ArgumentException($"The model knows no {permission}.", nameof(permission)),
    };
}

/// <summary>Whether something is held, and whether that is of use.</summary>
internal readonly record struct Answer(bool IsHeld, bool IsOpen)
{
    public bool Can => IsHeld && IsOpen;
}
