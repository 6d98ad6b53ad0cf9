using System.Collections.Concurrent;
using System.Diagnostics;

namespace Server.Tests;

/// <summary>
/// Counts how often requests ask the database, told from whatever else the server does by the trace of the request.
/// </summary>
internal sealed class RoundTrips : IDisposable
{
    private readonly ConcurrentDictionary<ActivityTraceId, ConcurrentQueue<string>> _asked = [];
    private readonly ActivityListener _listener;

    public RoundTrips()
    {
        _listener = new ActivityListener
        {
            ShouldListenTo = source => source.Name is "Npgsql" or "Microsoft.AspNetCore",
            Sample = (ref ActivityCreationOptions<ActivityContext> _) => ActivitySamplingResult.AllDataAndRecorded,
            ActivityStopped = activity =>
            {
                if (activity.Source.Name == "Npgsql" && StatementOf(activity) is { } statement)
                    _asked.GetOrAdd(activity.TraceId, _ => []).Enqueue(statement);
            },
        };
        ActivitySource.AddActivityListener(_listener);
    }

    /// <summary>All that is asked while one request is answered, in order; each is a round trip.</summary>
    public Task<IReadOnlyList<string>> OfAsync(
        HttpClient client,
        HttpRequestMessage request,
        HttpStatusCode expected
    ) => OfAsync(client.SendAsync, request, expected);

    /// <inheritdoc cref="OfAsync(HttpClient, HttpRequestMessage, HttpStatusCode)"/>
    public async Task<IReadOnlyList<string>> OfAsync(
        Func<HttpRequestMessage, Task<HttpResponseMessage>> send,
        HttpRequestMessage request,
        HttpStatusCode expected
    )
    {
        var trace = ActivityTraceId.CreateRandom();
        request.Headers.Add("traceparent", $"00-{trace}-{ActivitySpanId.CreateRandom()}-01");
        (await send(request)).StatusCode.ShouldBe(expected);
        return [.. _asked.GetOrAdd(trace, _ => [])];
    }

    public void Dispose() => _listener.Dispose();

    private static string? StatementOf(Activity activity) =>
        (activity.GetTagItem("db.query.text") ?? activity.GetTagItem("db.statement")) as string;
}
