using System.Xml;
using System.Xml.Linq;

namespace LooseLantern.StandIns.Calendars;

/// <summary>The answers of a WebDAV server, as XML (RFC 4918 section 13).</summary>
internal static class CalDavXml
{
    public static readonly XNamespace D = "DAV:";
    public static readonly XNamespace C = "urn:ietf:params:xml:ns:caldav";

    public static async Task<XElement?> ReadAsync(HttpRequest request)
    {
        if (request.ContentLength is 0)
            return null;
        var settings = new XmlReaderSettings
        {
            Async = true,
            DtdProcessing = DtdProcessing.Prohibit,
            XmlResolver = null,
        };
        using var reader = XmlReader.Create(request.Body, settings);
        try
        {
            return (await XDocument.LoadAsync(reader, LoadOptions.None, request.HttpContext.RequestAborted)).Root;
        }
        catch (XmlException)
        {
            return null;
        }
    }

    /// <summary>
    /// A resource with those of its properties that were asked for, and the names of those it has not.
    /// </summary>
    public static XElement Response(
        string href,
        IReadOnlyCollection<XName> asked,
        IReadOnlyDictionary<XName, XElement> has
    )
    {
        var found = asked.Where(has.ContainsKey).Select(name => has[name]).ToList();
        var missing = asked.Where(name => !has.ContainsKey(name)).Select(name => new XElement(name)).ToList();
        return new XElement(
            D + "response",
            new XElement(D + "href", href),
            found.Count == 0 && missing.Count > 0 ? null : Stat(found, "200 OK"),
            missing.Count == 0 ? null : Stat(missing, "404 Not Found")
        );
    }

    public static XElement Gone(string href) =>
        new(D + "response", new XElement(D + "href", href), new XElement(D + "status", "HTTP/1.1 404 Not Found"));

    public static IResult MultiStatus(IEnumerable<XElement> responses, string? token = null) =>
        Results.Content(
            Text(
                new XElement(D + "multistatus", responses, token is null ? null : new XElement(D + "sync-token", token))
            ),
            "application/xml; charset=utf-8",
            statusCode: StatusCodes.Status207MultiStatus
        );

    public static IResult Error(int status, XName condition) =>
        Results.Content(
            Text(new XElement(D + "error", new XElement(condition))),
            "application/xml; charset=utf-8",
            statusCode: status
        );

    private static XElement Stat(IEnumerable<XElement> properties, string status) =>
        new(D + "propstat", new XElement(D + "prop", properties), new XElement(D + "status", "HTTP/1.1 " + status));

    private static string Text(XElement root) =>
        "<?xml version=\"1.0\" encoding=\"utf-8\"?>\n" + root.ToString(SaveOptions.DisableFormatting);
}
