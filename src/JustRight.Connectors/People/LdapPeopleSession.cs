using System.Collections.Concurrent;
using System.DirectoryServices.Protocols;
using System.Globalization;
using System.Security.Cryptography;
using System.Text;
using JustRight.Core.Directory;
using JustRight.Core.Estates;
using JustRight.Core.SignIn.Objects;
using JustRight.Core.SignIn.SignInTests;

namespace JustRight.Connectors.People;

/// <summary>A bound connection to a directory of people.</summary>
internal sealed class LdapPeopleSession(LdapConnection connection, PeopleDirectory directory, string signedInAs) : IPeopleSession
{
    private const string WhoAmIRequest = "1.3.6.1.4.1.4203.1.11.3";
    private const int TimedOut = 85, FilterError = 87;
    private static readonly UTF8Encoding Strict = new(false, true);
    private readonly ConcurrentDictionary<(string Base, string Address), bool> _elsewhere = [];

    /// <inheritdoc/>
    public IReadOnlyCollection<string> PartsElsewhere(string baseDn) =>
        [.. _elsewhere.Keys.Where(e => e.Base == baseDn).Select(e => e.Address).Order(StringComparer.OrdinalIgnoreCase)];

    /// <inheritdoc/>
    public string? WhoAmI()
    {
        try
        {
            var value = ((ExtendedResponse)connection.SendRequest(new ExtendedRequest(WhoAmIRequest))).ResponseValue;
            return value is null ? "" : Encoding.UTF8.GetString(value);
        }
        catch (DirectoryOperationException)
        {
            return null;
        }
        catch (LdapException e)
        {
            throw Broken("asking who we are", e);
        }
    }

    /// <inheritdoc/>
    public IEnumerable<PeopleObject> Search(
        string baseDn, SearchScope scope, string filter, int? pageSize, params IReadOnlyList<string> attributes)
    {
        string[] asked = [.. attributes.DefaultIfEmpty("1.1")]; // 1.1 asks for no attribute [RFC 4511 4.5.1.8]
        Task<SearchResponse>? ahead = Task.FromResult(Page(baseDn, scope, filter, pageSize, asked, []));
        try
        {
            while (ahead is not null)
            {
                var response = ahead.GetAwaiter().GetResult();
                var cookie = response.Controls.OfType<PageResultResponseControl>().FirstOrDefault()?.Cookie ?? [];
                ahead = cookie.Length == 0 ? null : Task.Run(() => Page(baseDn, scope, filter, pageSize, asked, cookie));
                foreach (SearchResultEntry entry in response.Entries) yield return Object(entry);
            }
        }
        finally
        {
            // nobody may be asking when the connection closes
            ahead?.ContinueWith(
                _ => { }, CancellationToken.None, TaskContinuationOptions.ExecuteSynchronously, TaskScheduler.Default)
                .Wait();
        }
    }

    /// <inheritdoc/>
    public bool? CouldWrite(string dn, string attribute)
    {
        var taking = new DirectoryAttributeModification { Name = attribute, Operation = DirectoryAttributeOperation.Delete };
        taking.Add(IsName(attribute) ? $"cn=justright-{RandomNumberGenerator.GetHexString(16, true)},{directory.Root}" : $"justright-{RandomNumberGenerator.GetHexString(16, true)}");
        try
        {
            connection.SendRequest(new ModifyRequest(dn, taking));
            return true;
        }
        catch (DirectoryOperationException e) when (e.Response is not null)
        {
            return e.Response.ResultCode switch
            {
                ResultCode.InsufficientAccessRights or ResultCode.NoSuchObject => false,
                ResultCode.NoSuchAttribute => true,
                // what AD-like directories answer to taking away a member that is none
                ResultCode.UnwillingToPerform when directory.Family == DirectoryFamily.AdLike && IsName(attribute) => true,
                _ => null,
            };
        }
        catch (LdapException e)
        {
            throw Broken($"asking what may be written on {dn}", e);
        }
    }

    /// <inheritdoc/>
    public (IReadOnlyList<string> AttributeTypes, IReadOnlyList<string> ObjectClasses) Schema()
    {
        var where = this.Read("", "subschemaSubentry")?.First("subschemaSubentry");
        if (where is null) return ([], []);
        var schema = Search(where, SearchScope.Base, "(objectClass=subschema)", null, "attributeTypes", "objectClasses").FirstOrDefault()
            ?? this.Read(where, "attributeTypes", "objectClasses");
        return schema is null ? ([], []) : (schema.All("attributeTypes"), schema.All("objectClasses"));
    }

    /// <inheritdoc/>
    public void Dispose() => connection.Dispose();

    private static bool IsName(string attribute) => attribute is "member" or "uniqueMember";

    private SearchResponse Page(string baseDn, SearchScope scope, string filter, int? pageSize, string[] attributes, byte[] cookie)
    {
        var request = new SearchRequest(baseDn, filter, scope, attributes);
        if (scope != SearchScope.Base && pageSize is { } size) request.Controls.Add(new PageResultRequestControl(size) { Cookie = cookie });
        try
        {
            var response = (SearchResponse)connection.SendRequest(request);
            foreach (SearchResultReference part in response.References)
                foreach (var address in part.Reference) _elsewhere.TryAdd((baseDn, address.ToString()), true);
            // the library takes a referral for success
            return response.ResultCode == ResultCode.Success ? response : throw new DirectoryOperationException(response);
        }
        catch (DirectoryOperationException e) when (e.Response is not null)
        {
            throw Refused(e, baseDn, filter, pageSize);
        }
        catch (LdapException e) when (e.ErrorCode == FilterError)
        {
            // it never left
            throw new PeopleDirectoryException(
                SignInCause.SearchRefused, ConnectorFailure.Conflict, $"this is no filter: {filter}", e);
        }
        catch (LdapException e)
        {
            throw Broken($"searching {baseDn}", e);
        }
    }

    private PeopleDirectoryException Refused(DirectoryOperationException e, string baseDn, string filter, int? pageSize)
    {
        var said = e.Response.ErrorMessage?.Split('\n')[0].Trim() is { Length: > 0 } text ? $" ({text})" : "";
        PeopleDirectoryException Of(SignInCause cause, ConnectorFailure failure, string words) =>
            new(cause, failure, $"{directory.Host}{words}{said}.", e);

        return e.Response.ResultCode switch
        {
            ResultCode.NoSuchObject => Of(
                SignInCause.BaseMissing, ConnectorFailure.NotFound, $": {baseDn} does not exist, or {signedInAs} may not see it"),
            ResultCode.InsufficientAccessRights => Of(
                SignInCause.MayNotSearch, ConnectorFailure.NotAllowed, $": {signedInAs} may not search {baseDn}"),
            ResultCode.SizeLimitExceeded => Of(
                SignInCause.SizeLimit, ConnectorFailure.Conflict,
                $" returns at most {(e.Response as SearchResponse)?.Entries.Count} objects in one answer, and more match {filter}"),
            ResultCode.UnavailableCriticalExtension or ResultCode.AdminLimitExceeded or ResultCode.UnwillingToPerform
                when pageSize is not null => Of(
                    SignInCause.PagingRefused, ConnectorFailure.Conflict,
                    $" does not answer page by page, {pageSize} at a time: {e.Response.ResultCode}"),
            ResultCode.Referral or ResultCode.ReferralV2 => Of(
                SignInCause.BaseElsewhere, ConnectorFailure.NotFound,
                $" does not hold {baseDn}, and refers to {string.Join(", ", e.Response.Referral.Select(r => r.ToString()))}"),
            ResultCode.ConfidentialityRequired or ResultCode.StrongAuthRequired => Of(
                SignInCause.ProtectionRequired, ConnectorFailure.NotAllowed, " shows this over an encrypted connection alone"),
            var code => Of(SignInCause.SearchRefused, ConnectorFailure.Conflict, $" refuses the search with {filter}: {code}"),
        };
    }

    private PeopleDirectoryException Broken(string doing, LdapException e) => e.ErrorCode == TimedOut
        ? new PeopleDirectoryException(
            SignInCause.TooSlow, ConnectorFailure.Unreachable, $"{directory.Host} did not answer in time while {doing}.", e)
        : new PeopleDirectoryException(
            SignInCause.Broken, ConnectorFailure.Unreachable,
            $"{directory.Host} broke the connection while {doing}: {e.Message}", e);

    private PeopleObject Object(SearchResultEntry entry)
    {
        var values = new Dictionary<string, IReadOnlyList<string>>(StringComparer.OrdinalIgnoreCase);
        foreach (DirectoryAttribute attribute in entry.Attributes.Values)
        {
            var ranged = attribute.Name.IndexOf(";range=", StringComparison.OrdinalIgnoreCase);
            if (ranged < 0) values[attribute.Name] = Texts(attribute);
            else if (attribute.Count > 0)
                values[attribute.Name[..ranged]] = Ranges(entry.DistinguishedName, attribute.Name[..ranged], attribute);
        }

        return new PeopleObject(entry.DistinguishedName, values);
    }

    /// <summary>Many values come range by range [MS-ADTS 3.1.1.3.1.3.3].</summary>
    private List<string> Ranges(string dn, string attribute, DirectoryAttribute first)
    {
        var all = new List<string>(Texts(first));
        for (var at = first; !at.Name.EndsWith('*');)
        {
            var next = int.Parse(at.Name[(at.Name.LastIndexOf('-') + 1)..], CultureInfo.InvariantCulture) + 1;
            var more = Page(
                dn, SearchScope.Base, "(objectClass=*)", null, [string.Create(CultureInfo.InvariantCulture, $"{attribute};range={next}-*")],
                []).Entries.Cast<SearchResultEntry>()
                .FirstOrDefault()
                ?.Attributes.Values.Cast<DirectoryAttribute>()
                    .FirstOrDefault(a => a.Name.StartsWith(attribute + ";range=", StringComparison.OrdinalIgnoreCase));
            if (more is null || more.Count == 0)
                throw new ConnectorException(
                    ConnectorFailure.Conflict, $"{directory.Host} returns only {next} values of {attribute} of {dn}.");
            all.AddRange(Texts(more));
            at = more;
        }

        return all;
    }

    private static List<string> Texts(DirectoryAttribute attribute) =>
        [.. attribute.GetValues(typeof(byte[])).Cast<byte[]>().Select(Text)];

    /// <summary>The text of a value; octets that are none in hexadecimal.</summary>
    private static string Text(byte[] octets)
    {
        try
        {
            return Strict.GetString(octets);
        }
        catch (DecoderFallbackException)
        {
            return Convert.ToHexStringLower(octets);
        }
    }
}
