using System.Collections.Concurrent;
using System.Text;
using System.Xml.Linq;
using Microsoft.AspNetCore.Builder;
using Microsoft.AspNetCore.Hosting;
using Microsoft.AspNetCore.Http;
using Microsoft.Extensions.Logging;

namespace Server.Tests;

/// <summary>
/// Another server that misbehaves as it is told to: a calendar account at /cal/ with one collection, and whatever a
/// test lets it answer elsewhere.
/// </summary>
internal sealed class OddServer : IAsyncDisposable
{
    private static readonly XNamespace D = "DAV:";
    private static readonly XNamespace C = "urn:ietf:params:xml:ns:caldav";

    private readonly WebApplication _app;

    private OddServer(WebApplication app) => _app = app;

    public string Address => _app.Urls.First();

    /// <summary>The objects of the collection by path.</summary>
    public ConcurrentDictionary<string, string> Objects { get; } = new();

    /// <summary>Says the same entity tag for an object, whatever becomes of it.</summary>
    public bool SaysAllTagsAlike { get; set; }

    /// <summary>Says another entity tag each time it is asked.</summary>
    public bool SaysNewTagsAlways { get; set; }

    /// <summary>So many times, stores what is put and breaks the connection off instead of answering.</summary>
    public int DiesAfterPuts { get; set; }

    /// <summary>So many times, deletes what it should and breaks the connection off instead of answering.</summary>
    public int DiesAfterDeletes { get; set; }

    /// <summary>Leaves some objects out where many are asked for, without a word.</summary>
    public bool LeavesOutSome { get; set; }

    /// <summary>Lists an object that it then has trouble with.</summary>
    public bool HasTroubleWithOne { get; set; }

    /// <summary>Takes what is asked and answers nothing, for ever.</summary>
    public bool Hangs { get; set; }

    /// <summary>Answers nothing any more.</summary>
    public bool IsDown { get; set; }

    public string Password { get; set; } = "sesame";

    /// <summary>How often a collection was asked for objects.</summary>
    public int Fetches { get; private set; }

    public List<string> Asked { get; } = [];

    /// <summary>Answers everything but the account.</summary>
    public Func<HttpContext, Task> Answer { get; set; } =
        context =>
        {
            context.Response.StatusCode = 404;
            return Task.CompletedTask;
        };

    private int _tags;

    public static async Task<OddServer> StartAsync()
    {
        var builder = WebApplication.CreateSlimBuilder();
        builder.Logging.ClearProviders();
        builder.WebHost.UseUrls("http://127.0.0.1:0");
        var server = new OddServer(builder.Build());
        server._app.Run(server.HandleAsync);
        await server._app.StartAsync();
        return server;
    }

    public object Account() =>
        new
        {
            server = Address + "/cal/",
            userName = "odd",
            password = Password,
        };

    public ValueTask DisposeAsync() => _app.DisposeAsync();

    public static Task CalendarAsync(HttpContext context, string text)
    {
        context.Response.ContentType = "text/calendar";
        return context.Response.WriteAsync(text);
    }

    private async Task HandleAsync(HttpContext context)
    {
        lock (Asked)
            Asked.Add($"{context.Request.Method} {context.Request.Path}");
        if (IsDown)
        {
            context.Abort();
            return;
        }

        if (Hangs)
        {
            await Task.Delay(Timeout.Infinite, context.RequestAborted).ContinueWith(_ => { }, TaskScheduler.Default);
            return;
        }

        if (!context.Request.Path.StartsWithSegments("/cal"))
        {
            await Answer(context);
            return;
        }

        if (
            context.Request.Headers.Authorization
            != "Basic " + Convert.ToBase64String(Encoding.UTF8.GetBytes("odd:" + Password))
        )
        {
            context.Response.StatusCode = 401;
            return;
        }

        await CalDavAsync(context);
    }

    private async Task CalDavAsync(HttpContext context)
    {
        var (request, path) = (context.Request, context.Request.Path.Value!);
        using var reader = new StreamReader(request.Body);
        var body = await reader.ReadToEndAsync();
        switch (request.Method)
        {
            case "PROPFIND" when path == "/cal/":
                await MultiAsync(
                    context,
                    [
                        Resource("/cal/", Home()),
                        .. request.Headers["Depth"] == "1"
                            ? [Resource("/cal/odd/", Collection())]
                            : Array.Empty<XElement>(),
                    ]
                );
                break;
            case "PROPFIND" when path == "/cal/odd/":
                await MultiAsync(
                    context,
                    [
                        Resource(path, Collection()),
                        .. request.Headers["Depth"] == "1"
                            ? Objects.Select(pair => Resource(pair.Key, Tag(pair.Key)))
                            : [],
                    ]
                );
                break;
            case "REPORT":
                Fetches++;
                await MultiAsync(
                    context,
                    XDocument
                        .Parse(body)
                        .Root!.Elements(D + "href")
                        .Select(href => href.Value)
                        .Where(Objects.ContainsKey)
                        .Where(_ => !LeavesOutSome)
                        .Select(href =>
                            Resource(href, [.. Tag(href), new XElement(C + "calendar-data", Objects[href])])
                        )
                );
                break;
            case "PUT":
                await PutAsync(context, path, body);
                break;
            case "DELETE":
                context.Response.StatusCode = Objects.TryRemove(path, out _) ? 204 : 404;
                if (DiesAfterDeletes-- > 0)
                    context.Abort();
                break;
            case "GET" when HasTroubleWithOne:
                context.Response.StatusCode = 500;
                break;
            case "GET" when Objects.TryGetValue(path, out var text):
                context.Response.Headers.ETag = TagOf(path);
                await CalendarAsync(context, text);
                break;
            default:
                context.Response.StatusCode = 404;
                break;
        }
    }

    private Task PutAsync(HttpContext context, string path, string body)
    {
        if (
            (context.Request.Headers.IfNoneMatch == "*" && Objects.ContainsKey(path))
            || (
                context.Request.Headers.IfMatch is [{ } tag]
                && (!Objects.ContainsKey(path) || (tag != TagOf(path) && !SaysNewTagsAlways))
            )
        )
        {
            context.Response.StatusCode = 412;
            return Task.CompletedTask;
        }

        Objects[path] = body;
        if (DiesAfterPuts-- > 0)
            context.Abort();
        else
            context.Response.StatusCode = 201;
        return Task.CompletedTask;
    }

    private string TagOf(string path) =>
        SaysAllTagsAlike ? "\"same\""
        : SaysNewTagsAlways ? $"\"{++_tags}\""
        : $"\"{Convert.ToHexString(System.Security.Cryptography.SHA256.HashData(Encoding.UTF8.GetBytes(Objects[path])))[..16]}\"";

    private XElement[] Tag(string path) => [new XElement(D + "getetag", TagOf(path))];

    private static XElement[] Home() =>
        [
            new(D + "resourcetype", new XElement(D + "collection")),
            new(D + "current-user-principal", new XElement(D + "href", "/cal/")),
            new(C + "calendar-home-set", new XElement(D + "href", "/cal/")),
        ];

    private static XElement[] Collection() =>
        [
            new(D + "resourcetype", new XElement(D + "collection"), new XElement(C + "calendar")),
            new(D + "displayname", "Odd"),
        ];

    private static XElement Resource(string href, params IEnumerable<XElement> properties) =>
        new(
            D + "response",
            new XElement(D + "href", href),
            new XElement(
                D + "propstat",
                new XElement(D + "prop", properties),
                new XElement(D + "status", "HTTP/1.1 200 OK")
            )
        );

    private static Task MultiAsync(HttpContext context, IEnumerable<XElement> resources)
    {
        context.Response.StatusCode = 207;
        context.Response.ContentType = "application/xml";
        return context.Response.WriteAsync(new XElement(D + "multistatus", resources).ToString());
    }
}
