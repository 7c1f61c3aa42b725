using System.DirectoryServices.Protocols;
using JustRight.Connectors;
using JustRight.Connectors.People;
using JustRight.Core.Directory;
using JustRight.Core.Estates;
using JustRight.Core.Rights.Access;
using JustRight.Core.Rights.Memberships;
using JustRight.Core.SignIn.Filters;
using JustRight.Core.SignIn.Objects;
using JustRight.Core.SignIn.SignInTests;
using JustRight.Core.Surveys;

namespace JustRight.Simulation.People;

/// <summary>
/// A simulated directory of people, of either family. It answers filters by our own evaluation, which is proved against real
/// servers, and lets people in as they would be.
/// </summary>
public sealed class SimulationPeopleDirectory(SimulationFile file, PeopleDirectory directory, Domain domain, TimeProvider time)
    : IPeopleDirectory
{
    private static readonly TimeSpan CertificateLeft = TimeSpan.FromDays(200);

    /// <inheritdoc/>
    public Task<ConnectionLook> LookAsync(WireSecurity security, CancellationToken cancel)
    {
        var now = time.GetUtcNow();
        var certificate = new CertificateLook(
            $"CN={directory.Host}", "CN=simulated authority", [directory.Host], now - CertificateLeft, now + CertificateLeft,
            [$"CN={directory.Host}", "CN=simulated authority"], null);
        var tls = security == WireSecurity.Plain ? null : new TlsLook("TLS 1.3", "simulated cipher", TimeSpan.Zero, certificate);
        return Task.FromResult(
            new ConnectionLook(
                directory.Host, directory.Offers[security], security,
                [new AddressLook("a simulated address", TimeSpan.Zero, tls, null)], null));
    }

    /// <inheritdoc/>
    public Task<IPeopleSession> BindAsync(WireSecurity security, string name, NewPassword password, CancellationToken cancel)
    {
        if (password.Reveal().Length == 0)
            throw new ConnectorException(
                ConnectorFailure.SignIn, "the password is empty: a directory treats that as an anonymous bind [RFC 4513 5.1.2].");
        return Task.FromResult(file.Read<IPeopleSession>(state =>
        {
            var dn = directory.IsOfDomain ? OfDomain(state, name, password) : Beside(state, name, password);
            return dn is not null
                ? new Session(file, directory, dn)
                : throw new ConnectorException(
                    ConnectorFailure.SignIn,
                    $"{directory.Host} refuses the sign-in of {name}: wrong name or password, or the account is disabled.");
        }));
    }

    /// <inheritdoc/>
    public async Task<PasswordAnswer> TryPasswordAsync(
        WireSecurity security, string name, NewPassword password, CancellationToken cancel)
    {
        try
        {
            using var session = await BindAsync(security, name, password, cancel);
            return new PasswordAnswer(null, "");
        }
        catch (ConnectorException e)
        {
            return new PasswordAnswer(SignInCause.WrongPassword, e.Message.TrimEnd('.'));
        }
    }

    /// <inheritdoc/>
    public Task<int?> ShownToAnybodyAsync(WireSecurity security, string baseDn, CancellationToken cancel) =>
        Task.FromResult<int?>(null); // as real ones of either family come

    /// <inheritdoc/>
    public Task<EmptyPasswordAnswer> TryEmptyPasswordAsync(WireSecurity security, string name, CancellationToken cancel) =>
        // as real ones of each family come
        Task.FromResult(directory.Family == DirectoryFamily.AdLike ? EmptyPasswordAnswer.TakenForNobody : EmptyPasswordAnswer.Refused);

    /// <summary>A session that sees everything, as surveys of the simulation do.</summary>
    public IPeopleSession OpenAll() => new Session(file, directory, "the simulation");

    private string? OfDomain(SimulationState state, string name, NewPassword password)
    {
        var account = state.Principals.FirstOrDefault(p =>
            string.Equals(p.Dn, name, StringComparison.OrdinalIgnoreCase)
                || string.Equals(p.Name, Bare(name), StringComparison.OrdinalIgnoreCase));
        if (account is null or { Kind: not PrincipalKind.User } || account.State.HasFlag(AccountState.Disabled)) return null;
        return SimulationPasswords.Fits(password, SimulationPasswords.ProofOf(state, account)) ? account.Dn : null;
    }

    private string Bare(string name) =>
        name.EndsWith("@" + domain.DnsName, StringComparison.OrdinalIgnoreCase)
            ? name[..^(domain.DnsName.Length + 1)]
            : LogonName.WithoutDomain(name);

    private static string? Beside(SimulationState state, string name, NewPassword password) =>
        DistinguishedName.TryParse(name, out var dn)
            && state.People.Find(p => DistinguishedName.Parse(p.Dn).Equals(dn)) is { } person
            && person.Values.GetValueOrDefault("uid") is [var uid, ..]
            && password.Reveal() == SimulationPasswords.FirstOf(state, uid).Reveal()
            ? person.Dn
            : null;

    private sealed class Session(SimulationFile file, PeopleDirectory directory, string me) : IPeopleSession
    {
        private readonly List<PeopleObject> _objects = file.Read(state => SimulationPeopleObjects.Of(state, directory));

        public IReadOnlyCollection<string> PartsElsewhere(string baseDn) => [];

        public string? WhoAmI() => directory.IsOfDomain ? "u:" + me : "dn:" + me;

        public IEnumerable<PeopleObject> Search(
            string baseDn, SearchScope scope, string filter, int? pageSize, params IReadOnlyList<string> attributes)
        {
            if (baseDn.Length == 0) return [];
            if (!FilterParser.TryParse(filter, out var parsed, out var fault))
                throw new ConnectorException(ConnectorFailure.Conflict, $"not a valid filter: {filter}: {fault}");
            var root = DistinguishedName.Parse(baseDn);
            var inside = _objects.Where(o =>
                DistinguishedName.Parse(o.Dn) is var dn && scope switch
                {
                    SearchScope.Base => dn.Equals(root),
                    SearchScope.OneLevel => root.Equals(dn.Parent),
                    SearchScope.Subtree => dn.IsAtOrBelow(root),
                })
                .ToList();
            if (!_objects.Exists(o => DistinguishedName.Parse(o.Dn).Equals(root)))
                throw new ConnectorException(
                    ConnectorFailure.NotFound, $"{directory.Host}: {baseDn} does not exist, or {me} may not see it.");
            var (types, classes) = Schema();
            // A chain leads through objects outside the base too.
            var found = FilterEvaluator.Matching(
                parsed, new ObjectTable(SchemaDescriptions.Read(directory.Family, types, classes), _objects))
                .ToHashSet();
            List<PeopleObject> answer = [.. inside.Where(found.Contains).Select(o =>
                o with
                {
                    Values = attributes.Where(o.Values.ContainsKey).Distinct(StringComparer.OrdinalIgnoreCase)
                        .ToDictionary(a => a, a => o.Values[a], StringComparer.OrdinalIgnoreCase),
                })];
            if (pageSize is null && directory.MostInOneAnswer is { } most && answer.Count > most)
                throw new ConnectorException(
                    ConnectorFailure.Conflict,
                    $"{directory.Host} returns at most {most} objects in one answer, and more match {filter}.");
            return answer;
        }

        public bool? CouldWrite(string dn, string attribute)
        {
            if (!directory.IsOfDomain) return false;
            return file.Read<bool?>(state =>
            {
                var snapshot = SimulationDirectory.Snapshot(state, false, DateTimeOffset.UnixEpoch);
                var (graph, tree) = (new MembershipGraph(snapshot), SimulationAccessLists.Tree(state));
                var account = graph.IndexOf(state.Principals.First(p => p.Dn == me).Name);
                if (tree.IndexOf(dn) is var at && at < 0) return false;
                var schema = tree.Schema;
                if (schema.Attribute(attribute) is not { } known || schema.Class(tree[at].Class) is not { } @class) return null;
                return AccessCheck.Judge(
                    tree.DescriptorOf(at)!, AccessTokens.Of(graph, account), AccessQuestion.Write(known, @class),
                    tree[at].Sid).Answer switch
                { AccessAnswer.Yes => true, AccessAnswer.No => false, _ => null };
            });
        }

        public (IReadOnlyList<string> AttributeTypes, IReadOnlyList<string> ObjectClasses) Schema() =>
            SimulationPeopleSchema.Of(directory.Family);

        public void Dispose()
        {
        }
    }
}
