using System.Diagnostics;
using LooseLantern.Server.Hosting;
using Microsoft.AspNetCore.Hosting.Server;
using Microsoft.AspNetCore.Hosting.Server.Features;
using Microsoft.AspNetCore.Http.Features;
using Microsoft.Extensions.Configuration;

namespace Server.Tests;

/// <summary>Where links that are sent away lead.</summary>
public sealed class PublicAddressTests(World world)
{
    [Theory]
    [InlineData("http://127.0.0.1:4700", null, true)]
    [InlineData("http://[::1]:4700", null, true)]
    [InlineData("http://localhost:4700", null, true)]
    [InlineData("http://0.0.0.0:4700", null, false)]
    [InlineData("http://[::]:4700", null, false)]
    [InlineData("http://*:80", null, false)]
    [InlineData("http://192.0.2.7:4700", null, false)]
    [InlineData("http://0.0.0.0:4700", "https://book.company.example/", true)]
    [InlineData("http://127.0.0.1:4700", "book.company.example", false)]
    public void A_server_that_others_reach_needs_to_know_by_which_address(string listens, string? set, bool mayStart)
    {
        using var server = new Listening(listens);
        var address = new PublicAddress(
            new ConfigurationBuilder()
                .AddInMemoryCollection(new Dictionary<string, string?> { ["PublicAddress"] = set })
                .Build(),
            server
        );
        if (mayStart)
        {
            address.Require();
            address.Value.ShouldBe((set ?? listens).TrimEnd('/'));
        }
        else
            Should.Throw<InvalidOperationException>(address.Require).Message.ShouldContain("PublicAddress");
    }

    [Fact]
    public async Task The_program_does_not_start_without_it_where_others_reach_it()
    {
        using var program = Process.Start(
            new ProcessStartInfo(
                "dotnet",
                [
                    Path.Combine(AppContext.BaseDirectory, "LooseLantern.Server.dll"),
                    "--urls",
                    "http://0.0.0.0:0",
                    "--ConnectionStrings:Lantern",
                    world.ConnectionString,
                ]
            )
            {
                RedirectStandardError = true,
                RedirectStandardOutput = true,
                WorkingDirectory = AppContext.BaseDirectory,
            }
        )!;
        var told = program.StandardError.ReadToEndAsync(TestContext.Current.CancellationToken);
        _ = program.StandardOutput.ReadToEndAsync(TestContext.Current.CancellationToken);
        await program.WaitForExitAsync(TestContext.Current.CancellationToken);
        program.ExitCode.ShouldNotBe(0);
        (await told).ShouldContain("PublicAddress is not set");
    }

    [Fact]
    public async Task What_a_request_calls_the_server_is_in_no_link()
    {
        await using var scene = await MailScene.MakeAsync();
        var page = await scene.Ada.PublishAsync();
        var guest = scene.World.Guest();
        guest.DefaultRequestHeaders.Host = "elsewhere.example";
        guest.DefaultRequestHeaders.Add("X-Forwarded-Host", "elsewhere.example");
        var answer = await (await guest.BookAsync(scene.Ada.Desk, page, MailScene.Nine)).ReadAsync(
            HttpStatusCode.Created
        );
        answer.ToString().ShouldNotContain("elsewhere");
        var mail = await scene.MailAsync(MailScene.Guest, "Talk");
        mail.Text.ShouldNotContain("elsewhere");
        mail.Text.ShouldContain("/booking/");
    }

    private sealed class Listening : IServer
    {
        public Listening(string address)
        {
            var addresses = new ServerAddressesFeature();
            addresses.Addresses.Add(address);
            Features.Set<IServerAddressesFeature>(addresses);
        }

        public IFeatureCollection Features { get; } = new FeatureCollection();

        public void Dispose() { }

        public Task StartAsync<TContext>(IHttpApplication<TContext> application, CancellationToken cancellationToken)
            where TContext : notnull => Task.CompletedTask;

        public Task StopAsync(CancellationToken cancellationToken) => Task.CompletedTask;
    }
}
