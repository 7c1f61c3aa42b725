using System.IO.Compression;
using System.Net;
using System.Net.Http.Headers;
using JustRight.Contracts;

namespace JustRight.Service.Tests;

/// <summary>
/// Whoever asks again for what has not changed is told just that; and answers come compressed where they are taken so.
/// </summary>
public sealed class EntityTagTests
{
    private static CancellationToken Cancel => TestContext.Current.CancellationToken;

    [Fact]
    public async Task What_has_not_changed_is_not_sent_again_and_what_has_is()
    {
        await using var service = await PreparedData.Demo.StartAsync();
        using var first = await service.Http.GetAsync("/api/sheets", Cancel);
        var tag = first.Headers.ETag!;
        tag.IsWeak.ShouldBeTrue();
        first.Headers.CacheControl!.NoStore.ShouldBeTrue("nothing is kept on a disk that is not asked for");
        (await AskedAsync(service, "/api/sheets", tag)).ShouldBe((HttpStatusCode.NotModified, 0));
        (await AskedAsync(service, "/api/estates", tag)).Status.ShouldBe(HttpStatusCode.OK);
        (await AskedAsync(service, "/api/installs/nothing", tag)).Status.ShouldBe(HttpStatusCode.NotFound);

        (await service.AddAsync("installs", "later/thermograph-depot.yaml")).EnsureSuccessStatusCode();
        (await AskedAsync(service, "/api/sheets", tag)).Status.ShouldBe(HttpStatusCode.NotModified);
        using var installs = await service.Http.GetAsync("/api/installs", Cancel);
        await service.RunAsync("estates/fennmoor/survey");
        (await AskedAsync(service, "/api/installs", installs.Headers.ETag!)).Status.ShouldBe(HttpStatusCode.OK);
    }

    [Fact]
    public async Task Reads_come_compressed_to_whoever_takes_them_so_and_what_is_handed_over_never()
    {
        await using var service = await PreparedData.Demo.StartAsync();
        await service.RunAsync("estates/fennmoor/survey");
        using var asked = new HttpRequestMessage(HttpMethod.Get, "/api/installs/thermograph-dataroom/fit");
        asked.Headers.AcceptEncoding.Add(new StringWithQualityHeaderValue("gzip"));
        using var packed = await service.Http.SendAsync(asked, Cancel);
        packed.Content.Headers.ContentEncoding.ShouldBe(["gzip"]);
        var bytes = await packed.Content.ReadAsByteArrayAsync(Cancel);
        await using var unpacked = new GZipStream(new MemoryStream(bytes), CompressionMode.Decompress);
        using var whole = new MemoryStream();
        await unpacked.CopyToAsync(whole, Cancel);
        var plain = await service.Http.GetByteArrayAsync("/api/installs/thermograph-dataroom/fit", Cancel);
        whole.ToArray().ShouldBe(plain);
        bytes.Length.ShouldBeLessThan(plain.Length / 4);

        await service.GrantAllAsync("thermograph-dataroom");
        using var hand = new HttpRequestMessage(HttpMethod.Post, "/api/estates/fennmoor/passwords/svc-thermo-poller/show");
        hand.Headers.AcceptEncoding.Add(new StringWithQualityHeaderValue("gzip"));
        using var shown = await service.Http.SendAsync(hand, Cancel);
        shown.EnsureSuccessStatusCode();
        shown.Content.Headers.ContentEncoding.ShouldBeEmpty();
        shown.Headers.ETag.ShouldBeNull();
    }

    private static async Task<(HttpStatusCode Status, int Length)> AskedAsync(
        TestedService service, string path, EntityTagHeaderValue known)
    {
        using var asked = new HttpRequestMessage(HttpMethod.Get, path);
        asked.Headers.IfNoneMatch.Add(known);
        using var answer = await service.Http.SendAsync(asked, Cancel);
        return (answer.StatusCode, (await answer.Content.ReadAsByteArrayAsync(Cancel)).Length);
    }
}
