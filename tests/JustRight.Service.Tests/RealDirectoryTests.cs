using System.Net;
using System.Net.Http.Headers;
using System.Net.Http.Json;
using System.Security.Cryptography;
using System.Security.Cryptography.Pkcs;
using System.Security.Cryptography.X509Certificates;
using System.Text;
using JustRight.Connectors;
using JustRight.Connectors.Directories;
using JustRight.Connectors.Directories.Ldap;
using JustRight.Contracts;
using JustRight.Core.Surveys;

namespace JustRight.Service.Tests;

/// <summary>
/// The main job on a real controller through the service: plan, grant, verify, grant again; and no secret anywhere.
/// </summary>
public sealed class RealDirectoryTests(Controller controller) : IClassFixture<Controller>
{
    private const string Install = "thermograph-dataroom";
    private const string Branches = "OU=Fennmoor,DC=fennmoor,DC=example";

    private static CancellationToken Cancel => TestContext.Current.CancellationToken;

    [Fact]
    public async Task A_grant_leaves_the_controller_with_just_what_was_planned_and_a_second_one_changes_nothing()
    {
        await using var service = await TestedService.StartAsync();
        await SetUpAsync(service, controller.Password);

        await service.RunAsync($"installs/{Install}/verify");
        var before = await service.GetAsync($"installs/{Install}/fit", ContractsJson.Default.FitView);
        before.Simulated.ShouldBeFalse();
        before.Counts.Missing.ShouldBeGreaterThan(0);
        before.Accounts.SelectMany(a => a.Rights).Where(r => r.Kind == "local-group")
            .ShouldAllBe(r => r.Verdict == "missing" || r.Verdict == "unseen");

        var job = await GrantReadyAsync(service);
        job.State.ShouldBe("done", job.Message);
        job.Steps.ShouldAllBe(s => s.State == "made");

        var snapshot = await new LdapDirectory(controller.Target, new DirectorySchemas(), TimeProvider.System)
            .ReadAsync(new DirectoryScope([Branches], []), Cancel);
        snapshot.Principals.Where(p => p.Dn.EndsWith(Branches, StringComparison.OrdinalIgnoreCase))
            .Select(p => $"{p.Kind} {p.Dn}").ShouldBe(
            [
                $"User CN=svc-thermo-poller,OU=Service Accounts,{Branches}",
                $"User CN=svc-thermo-portal,OU=Service Accounts,{Branches}",
                $"User CN=svc-thermo-archivist,OU=Service Accounts,{Branches}",
                $"User CN=svc-thermo-reports,OU=Service Accounts,{Branches}",
                $"Group CN=app-thermo-operators,OU=Application Groups,{Branches}",
                $"Group CN=app-thermo-pages,OU=Application Groups,{Branches}",
                $"Group CN=app-thermo-log-readers,OU=Application Groups,{Branches}",
            ],
            ignoreOrder: true);
        var names = snapshot.Principals.ToDictionary(p => p.Sid, p => p.Name);
        snapshot.Principals.Single(p => p.Name == "app-thermo-operators").Members.Select(m => names[m])
            .ShouldBe(["svc-thermo-poller"]);
        snapshot.Principals.Single(p => p.Name == "app-thermo-log-readers").Members.Select(m => names[m])
            .ShouldBe(["svc-thermo-archivist"]);
        snapshot.Principals.Where(p => p.Kind == PrincipalKind.User)
            .ShouldAllBe(p => p.State == AccountState.PasswordNeverExpires);

        var fit = await service.GetAsync($"installs/{Install}/fit", ContractsJson.Default.FitView);
        fit.Accounts.SelectMany(a => a.Rights).Where(r => r.Kind is "account" or "domain-group")
            .ShouldAllBe(r => r.Verdict == "met");
        // nothing reaches hosts here
        fit.Accounts.SelectMany(a => a.Rights).Where(r => r.Kind is "local-group" or "database-role")
            .ShouldAllBe(r => r.Verdict == "unseen" || r.Verdict == "pending");
        fit.Counts.Words.ShouldStartWith("just right as far as seen");

        (await service.GetAsync($"installs/{Install}/worklist", ContractsJson.Default.WorklistView)).Give.ShouldAllBe(s =>
            s.Blocked != null);
        await service.RunAsync($"installs/{Install}/verify");
        (await service.GetAsync($"installs/{Install}/worklist", ContractsJson.Default.WorklistView)).Give.ShouldAllBe(s =>
            s.Blocked != null);
        // its own account is no clash
        (await service.GetAsync(
            $"installs/{Install}/plan", ContractsJson.Default.PlanView)).Accounts[0].Name.ShouldBe("svc-thermo-poller");

        await SealedPasswordOpensTheAccountAsync(service);
        await NoSecretAnywhereAsync(service);
    }

    [Fact]
    public async Task Roundsman_is_planned_granted_traced_fixed_and_put_back_byte_for_byte()
    {
        await using var service = await TestedService.StartAsync();
        await service.SetSecretAsync("controller", controller.Password);
        (await service.AddAsync("sheets", "sheets/roundsman.yaml")).EnsureSuccessStatusCode();
        (await service.AddAsync(
            "estates", "estate.yaml",
            Encoding.UTF8.GetBytes(Estate().Replace("OU=Fennmoor,", "OU=Dairy,", StringComparison.Ordinal))))
            .EnsureSuccessStatusCode();
        await service.AllowAsync("controller");
        using var raw = new RawClient(controller.Target, controller.Target.SignInAs, controller.Password);
        RoundsmanScene.Lay(raw);
        (await service.AddAsync("installs", "installs/roundsman-dataroom.yaml")).EnsureSuccessStatusCode();
        const string install = "roundsman-dataroom";

        await service.RunAsync($"installs/{install}/verify");
        (await WordsAsync()).ShouldStartWith("3 missing, 1 forbidden");
        (await GrantReadyAsync(service, install)).Message!.ShouldStartWith("4 made; now 1 missing, 1 forbidden");
        (await GrantReadyAsync(service, install, remove: true)).Message!.ShouldStartWith("1 made; now 1 missing");

        var fit = await service.GetAsync($"installs/{install}/fit", ContractsJson.Default.FitView);
        var blocked = fit.Accounts[0].Rights.Single(r => r.Verdict == "missing");
        (blocked.Branch!.Can, blocked.Branch.Cannot, blocked.Branch.Failures.Single().At.Single())
            .ShouldBe((3, 2, RoundsmanScene.Saltmere));
        var trace = await service.TraceAsync(
            "fennmoor",
            new TraceOrder(
                null, "RoundsmanCopier", "fm-round01", blocked.Branch.Act, blocked.Branch.Attributes, blocked.Branch.Of, null,
                null, null, null));
        (trace.Account, trace.Can, trace.Cannot, trace.ReadFrom)
            .ShouldBe((@"FENNMOOR\svc-roundsman", 3, 2, "fm-dc01.fennmoor.example"));
        var failure = trace.Failures.ShouldHaveSingleItem();
        (failure.Cause, failure.Count).ShouldBe(("inheritance-stops", 2));
        failure.Remedies.Select(r => r.Id).ShouldBe(["1-inherit", "1-spot"]);
        failure.Remedies[0].Gained.ShouldContain(f => f.Who == @"FENNMOOR\svc-roundsman" && f.What == "write roomNumber");

        await SameFromAFileAsync(service, install, blocked.Branch, trace, failure.Remedies[0].Id);

        foreach (var remedy in failure.Remedies)
        {
            var before = RoundsmanScene.Lists(raw);
            var after = await service.FixAsync(trace.Id, remedy.Id);
            after.State.ShouldBe("done", after.Message);
            (await WordsAsync()).ShouldStartWith("just right");
            (await service.GetAsync($"jobs/{after.Id}/trace", ContractsJson.Default.TraceView)).Cannot.ShouldBe(0);
            RoundsmanScene.Lists(raw).Where(l => before[l.Key] != l.Value).Select(l => l.Key)
                .ShouldBe(remedy.TouchedObjects, ignoreOrder: true);
            var undone = await service.RunAsync($"runs/{after.Id}/undo");
            undone.State.ShouldBe("done", undone.Message);
            RoundsmanScene.Lists(raw).ShouldBe(before, remedy.Id);
            (await WordsAsync()).ShouldStartWith("1 missing");
        }

        async Task<string> WordsAsync()
        {
            await service.RunAsync($"installs/{install}/verify");
            return (await service.GetAsync($"installs/{install}/fit", ContractsJson.Default.FitView)).Counts.Words;
        }
    }

    /// <summary>
    /// The same estate without a connection, by what an ordinary client wrote: same fit, same trace; and nothing can be changed.
    /// </summary>
    private async Task SameFromAFileAsync(
        TestedService service, string install, BranchView branch, TraceView trace, string remedy)
    {
        var text = Estate().Replace("OU=Fennmoor,", "OU=Dairy,", StringComparison.Ordinal);
        var byFile = string.Join(
            '\n',
            text.Split('\n')
                .Select(l => l.StartsWith("directory:", StringComparison.Ordinal) ? "directory: { reach: file }" : l));
        (await service.AddAsync("estates", "estate.yaml", Encoding.UTF8.GetBytes(byFile))).EnsureSuccessStatusCode();
        (await service.RunAsync($"installs/{install}/verify")).Message!.ShouldContain("justright survey fennmoor --from FILE");
        var file = await DirectoryExport.RunAsync(controller, Cancel);
        using var given = await service.Http.PostAsync(
            "/api/estates/fennmoor/directory-file?file=fennmoor.ldif",
            new StringContent(file, Encoding.UTF8, new MediaTypeHeaderValue("text/plain")), Cancel);
        var view = (await given.Content.ReadFromJsonAsync(ContractsJson.Default.DirectoryFileView, Cancel))!;
        (view.File, view.HasSchema, view.SaysWhoRead).ShouldBe(("fennmoor.ldif", true, true));

        (await service.RunAsync($"installs/{install}/verify")).Message!.ShouldStartWith("1 missing");
        var again = await service.TraceAsync(
            "fennmoor",
            new TraceOrder("svc-roundsman", null, null, branch.Act, branch.Attributes, branch.Of, null, null, null, null));
        (again.Can, again.Cannot, again.ReadFrom)
            .ShouldBe((trace.Can, trace.Cannot, "fm-dc01.fennmoor.example (file fennmoor.ldif)"));
        again.Failures.Select(f => f.Words).ShouldBe(trace.Failures.Select(f => f.Words));
        using var refused = await service.Http.PostAsJsonAsync(
            $"/api/jobs/{again.Id}/fix", new FixOrder(remedy), ContractsJson.Default.FixOrder, Cancel);
        ((int)refused.StatusCode, await refused.Content.ReadAsStringAsync(Cancel))
            .ShouldSatisfyAllConditions(r => r.Item1.ShouldBe(409), r => r.Item2.ShouldContain("read-only"));
        (await service.GetAsync($"jobs/{again.Id}/remedies/{remedy}/ldif", ContractsJson.Default.LdifView)).Text.ShouldContain(
            "replace: nTSecurityDescriptor");
        (await service.AddAsync("estates", "estate.yaml", Encoding.UTF8.GetBytes(text))).EnsureSuccessStatusCode();
    }

    [Fact]
    public async Task A_wrong_password_leaves_everything_unseen_with_one_clear_message_and_nothing_to_grant()
    {
        await using var service = await TestedService.StartAsync();
        var marker = "Wrong-Marker-" + Guid.NewGuid().ToString("N");
        await SetUpAsync(service, marker);
        await service.RunAsync($"installs/{Install}/verify");
        var fit = await service.GetAsync($"installs/{Install}/fit", ContractsJson.Default.FitView);
        fit.Unseen[0].Reason.ShouldContain("refuses the sign-in of Administrator@fennmoor.example");
        fit.Counts.Met.ShouldBe(0);
        (await service.GetAsync($"installs/{Install}/worklist", ContractsJson.Default.WorklistView)).Give.ShouldAllBe(s =>
            s.Blocked != null);
        await SearchAsync(service, marker);
    }

    [Fact]
    public async Task Rennet_Roster_before_and_after_its_bind_account_and_its_group_are_made()
    {
        const string install = "rennet-roster-plants";
        await using var service = await TestedService.StartAsync();
        using (var raw = new RawClient(controller.Target, controller.Target.SignInAs, controller.Password)) RosterScene.Lay(raw);
        await service.SetSecretAsync("controller", controller.Password);
        (await service.AddAsync("sheets", "sheets/rennet-roster.yaml")).EnsureSuccessStatusCode();
        (await service.AddAsync("estates", "estate.yaml", Encoding.UTF8.GetBytes(Estate().Replace(
            "OU=Fennmoor,", RosterScene.Branch + ",", StringComparison.Ordinal)
            .Replace(
                "host: fm-dc01.fennmoor.example",
                $"host: {Controller.Address}\n    reach: ldap\n    sign-in-as: Administrator@fennmoor.example\n    secret: controller",
                StringComparison.Ordinal)
            .Replace("/etc/fennmoor/authorities", controller.CaFolder, StringComparison.Ordinal)))).EnsureSuccessStatusCode();
        await service.AllowAsync("controller");
        (await service.AddAsync(
            "installs", $"{install}.yaml",
            Encoding.UTF8.GetBytes(
                RosterScene.Install(
                    await File.ReadAllTextAsync(
                        Path.Combine(Checkout.Top, "demo-data", "installs", $"{install}.yaml"), Cancel)))))
            .EnsureSuccessStatusCode();

        await service.RunAsync($"installs/{install}/verify");
        (await TryAsync(null)).Checks.Single(c => c.Id == "bind").Verdict.ShouldBe("unseen");
        (await GrantReadyAsync(service, install)).Message!.ShouldStartWith("6 made");

        // The password that was made with the account goes nowhere until an owner lets it.
        var withheld = (await TryAsync(RosterScene.Password)).Checks.Single(c => c.Id == "bind");
        withheld.ShouldSatisfyAllConditions(
            c => c.Verdict.ShouldBe("unseen"), c => c.Fact.ShouldContain(@"justright secret allow 'FENNMOOR\svc-roster-reader'"));
        await service.AllowAsync(@"FENNMOOR\svc-roster-reader");
        var after = await TryAsync(RosterScene.Password);
        after.Simulated.ShouldBeFalse();
        after.Checks.Where(c => c.Verdict != "pass").Select(c => c.Id)
            .ShouldBe(["who-am-i", "person-attributes", "elsewhere"],
                string.Join('\n', after.Checks.Select(c => $"{c.Verdict} {c.Id}: {c.Fact}")));
        after.People.ShouldNotBeNull()
            .ShouldSatisfyAllConditions(p => p.Found.ShouldBe(8), p => p.Missing.ShouldBeEmpty(), p => p.Extra.ShouldBeEmpty());
        var settings = await service.GetAsync($"installs/{install}/sign-in", ContractsJson.Default.SignInView);
        settings.Findings.Select(f => f.Code).ShouldBe(["bind-outside"]);

        var order = new FilterOrder(settings.Settings.Single(s => s.Key == "people-filter").Value!, null);
        foreach (var path in new[] { "filter", "filter/ask" })
        {
            using var response = await service.Http.PostAsJsonAsync(
                $"/api/estates/fennmoor/people-directories/staff/{path}", order, ContractsJson.Default.FilterOrder);
            (await response.Content.ReadFromJsonAsync(ContractsJson.Default.FilterView))!.Objects.Select(o => o.LogonName)
                .ShouldBe(RosterScene.Found, ignoreOrder: true, path);
        }

        foreach (var secret in new[] { controller.Password, RosterScene.Password })
            foreach (var file in service.DataFiles)
                Encoding.Latin1.GetString(await File.ReadAllBytesAsync(file, Cancel))
                    .ShouldNotContain(secret, Case.Sensitive, file);
        service.Output.ShouldNotContain(RosterScene.Password);

        async Task<SignInTestView> TryAsync(string? person)
        {
            var job = await service.StartedAsync(
                $"installs/{install}/sign-in/tests",
                JsonContent.Create(new SignInTestOrder(null, person), ContractsJson.Default.SignInTestOrder));
            job.State.ShouldBe("done", job.Message);
            return await service.GetAsync($"jobs/{job.Id}/sign-in-test", ContractsJson.Default.SignInTestView);
        }
    }

    [Fact]
    public async Task People_sign_in_with_the_directory_of_the_settings_once_its_secret_is_allowed_and_no_estate_changes_that()
    {
        const string at = "--JustRight:DirectorySignIn:";
        await using var service = await TestedService.StartAsync(
            at + "Host", Controller.Address, at + "CaFolder", controller.CaFolder, at + "Root", "DC=fennmoor,DC=example",
            at + "PeopleIn", "CN=Users,DC=fennmoor,DC=example", at + "GroupsIn", "DC=fennmoor,DC=example", at + "ShortName",
            "FENNMOOR",
            at + "SignInAs", controller.Target.SignInAs, at + "Secret", "controller",
            at + "Roles:granter:0", "CN=Domain Admins,CN=Users,DC=fennmoor,DC=example");
        await service.SetSecretAsync("controller", controller.Password);
        using var browser = new HttpClient { BaseAddress = new Uri(service.Address) };
        var person = new PersonSignInOrder("Administrator", controller.Password);

        using var withheld = await EnterAsync();
        withheld.StatusCode.ShouldBe(HttpStatusCode.BadGateway);
        (await withheld.Content.ReadAsStringAsync(Cancel)).ShouldContain("is not allowed for this use");
        await service.AllowAsync("controller");
        using var entered = await EnterAsync();
        entered.StatusCode.ShouldBe(HttpStatusCode.OK, await entered.Content.ReadAsStringAsync(Cancel));
        (await entered.Content.ReadFromJsonAsync(ContractsJson.Default.WhoView, Cancel))
            .ShouldBe(new WhoView(@"FENNMOOR\Administrator", "granter"));

        // An estate that names a directory of the same key elsewhere is an estate, and nothing more.
        (await service.AddAsync("estates", "estates/fennmoor.yaml")).EnsureSuccessStatusCode();
        using var again = await EnterAsync();
        again.StatusCode.ShouldBe(HttpStatusCode.OK);

        Task<HttpResponseMessage> EnterAsync() =>
            browser.PostAsJsonAsync("/api/sign-in/person", person, ContractsJson.Default.PersonSignInOrder, Cancel);
    }

    [Fact]
    public async Task A_secret_that_was_never_set_is_said()
    {
        await using var service = await TestedService.StartAsync();
        await SetUpAsync(service, null);
        var job = await service.RunAsync($"installs/{Install}/verify");
        job.State.ShouldBe("failed");
        job.Message.ShouldBe(
            "there is no secret 'controller', which the estate names for fennmoor.example: set it with justright secret set controller.");
    }

    /// <summary>The demo's estate with the real controller as its directory.</summary>
    private string Estate() => File.ReadAllText(Path.Combine(Checkout.Top, "demo-data", "estates", "fennmoor.yaml")).Replace(
        "directory: { reach: simulation }",
        $"directory: {{ reach: ldaps, controller: {Controller.Address}, ca-folder: {controller.CaFolder}, sign-in-as: Administrator@fennmoor.example, secret: controller }}",
        StringComparison.Ordinal);

    private async Task SetUpAsync(TestedService service, string? password)
    {
        var estate = Estate();
        var install = File.ReadAllText(Path.Combine(Checkout.Top, "demo-data", "installs", $"{Install}.yaml"));
        install = install[..install.IndexOf("accounts:", StringComparison.Ordinal)]; // no account was there before
        if (password is not null) await service.SetSecretAsync("controller", password);
        (await service.AddAsync("sheets", "sheets/thermograph.yaml")).EnsureSuccessStatusCode();
        (await service.AddAsync("estates", "estate.yaml", Encoding.UTF8.GetBytes(estate))).EnsureSuccessStatusCode();
        await service.AllowAsync("controller");
        (await service.AddAsync("installs", "install.yaml", Encoding.UTF8.GetBytes(install))).EnsureSuccessStatusCode();
    }

    private static async Task<JobView> GrantReadyAsync(TestedService service, string install = Install, bool remove = false)
    {
        var worklist = await service.GetAsync($"installs/{install}/worklist", ContractsJson.Default.WorklistView);
        return await service.RunAsync(
            $"installs/{install}/grant",
            new GrantOrder(
                remove, [.. (remove ? worklist.Remove : worklist.Give).Where(s => s is { Blocked: null, Asks: null })
                    .Select(s => s.Id)]));
    }

    private async Task SealedPasswordOpensTheAccountAsync(TestedService service)
    {
        using var key = RSA.Create(2048);
        var request = new CertificateRequest("CN=Keeper", key, HashAlgorithmName.SHA256, RSASignaturePadding.Pkcs1);
        using var certificate = request.CreateSelfSigned(DateTimeOffset.UtcNow.AddDays(-1), DateTimeOffset.UtcNow.AddDays(1));
        var path = "/api/estates/fennmoor/passwords/svc-thermo-poller/seal";
        using var response = await service.Http.PostAsJsonAsync(
            path, new SealOrder(certificate.ExportCertificatePem()), ContractsJson.Default.SealOrder);
        var seal = (await response.Content.ReadFromJsonAsync(ContractsJson.Default.SealedPassword))!;
        var envelope = new EnvelopedCms();
        envelope.Decode(Convert.FromBase64String(
            seal.Cms.Replace("-----BEGIN CMS-----", "", StringComparison.Ordinal)
                .Replace("-----END CMS-----", "", StringComparison.Ordinal)));
        envelope.Decrypt(envelope.RecipientInfos[0], key);
        var password = Encoding.UTF8.GetString(envelope.ContentInfo.Content);

        var own = new LdapDirectory(
            controller.Target with { SignInAs = "svc-thermo-poller@fennmoor.example", Password = new NewPassword(password) },
            new DirectorySchemas(), TimeProvider.System);
        (await own.NamesInUseAsync(["svc-thermo-poller"], Cancel)).Count.ShouldBe(1);
        // once
        ((int)(await service.Http.PostAsJsonAsync(
            path, new SealOrder(certificate.ExportCertificatePem()), ContractsJson.Default.SealOrder)).StatusCode)
            .ShouldBe(409);
        await SearchAsync(service, password);
    }

    private async Task NoSecretAnywhereAsync(TestedService service)
    {
        await SearchAsync(service, controller.Password);
        await SearchAsync(service, service.Token);
        // a sign-in link is printed to be used
        await SearchAsync(service, TestedService.CodeOf(service.Links[0]), inOutput: false);
    }

    /// <summary>Looks for a secret in the database and its journal, the logs, the output, and what the API answers.</summary>
    private static async Task SearchAsync(TestedService service, string secret, bool inOutput = true)
    {
        byte[][] forms = [
            Encoding.UTF8.GetBytes(secret), Encoding.Unicode.GetBytes(secret),
            Encoding.UTF8.GetBytes(Convert.ToBase64String(Encoding.UTF8.GetBytes(secret)))];
        var files = service.DataFiles.ToList();
        files.ShouldContain(f => f.EndsWith(".db", StringComparison.Ordinal));
        files.ShouldContain(f => f.EndsWith(".jsonl", StringComparison.Ordinal));
        foreach (var file in files)
        {
            await using var stream = new FileStream(file, FileMode.Open, FileAccess.Read, FileShare.ReadWrite | FileShare.Delete);
            using var bytes = new MemoryStream();
            await stream.CopyToAsync(bytes, Cancel);
            foreach (var form in forms) bytes.ToArray().AsSpan().IndexOf(form).ShouldBe(-1, file);
        }

        if (inOutput) service.Output.ShouldNotContain(secret);
        foreach (var path in new[] { "log?take=500", "installs", $"installs/{Install}/fit", $"installs/{Install}/plan",
            $"runs?install={Install}", $"installs/{Install}/passwords", "secrets", "tokens", "estates/fennmoor", "sheets" })
            (await service.Http.GetStringAsync("/api/" + path, Cancel)).ShouldNotContain(secret);
        (await service.Http.GetStringAsync("/metrics", Cancel)).ShouldNotContain(secret);
    }
}
