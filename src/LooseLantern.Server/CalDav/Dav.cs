using System.Net;
using System.Text;
using System.Xml;
using System.Xml.Linq;
using LooseLantern.Server.Outside;

namespace LooseLantern.Server.CalDav;

/// <summary>One resource in a multi-status answer (RFC 4918 section 13).</summary>
/// <param name="Path">Absolute path on the server that was asked, as written there.</param>
/// <param name="Status">The status of the resource as a whole, where it has one.</param>
/// <param name="Properties">Those that were found.</param>
internal sealed record DavResource(string Path, HttpStatusCode? Status, IReadOnlyDictionary<XName, XElement> Properties)
{
    public string? Text(XName name) => Properties.TryGetValue(name, out var element) ? element.Value.Trim() : null;

    /// <summary>The paths of the href elements within a property.</summary>
    public IEnumerable<string> Hrefs(XName name) =>
        Properties.TryGetValue(name, out var element)
            ? element.Descendants(Dav.D + "href").Select(href => href.Value.Trim())
            : [];

    public bool Has(XName property, XName within) =>
        Properties.TryGetValue(property, out var element) && element.Element(within) is not null;
}

/// <param name="SyncToken">RFC 6578 section 6.2.</param>
internal sealed record MultiStatus(IReadOnlyList<DavResource> Resources, string? SyncToken);

/// <summary>
/// The XML of WebDAV (RFC 4918), its ACL (RFC 3744, 5397), CalDAV (RFC 4791) and collection sync (RFC 6578).
/// </summary>
internal static class Dav
{
    private const int MostCharacters = 40 * 1024 * 1024;

    public static readonly XNamespace D = "DAV:";
    public static readonly XNamespace C = "urn:ietf:params:xml:ns:caldav";

    /// <summary>A PROPFIND that asks for these properties.</summary>
    public static string PropFind(params XName[] properties) => TextOf(new XElement(D + "propfind", Prop(properties)));

    /// <summary>
    /// What changed in a collection since a token; all of it where there is none (RFC 6578 section 3.2).
    /// </summary>
    public static string SyncCollection(string? token) =>
        TextOf(
            new XElement(
                D + "sync-collection",
                new XElement(D + "sync-token", token ?? ""),
                new XElement(D + "sync-level", "1"),
                Prop(D + "getetag")
            )
        );

    /// <summary>The calendar objects at these paths (RFC 4791 section 7.9).</summary>
    public static string MultiGet(IEnumerable<string> paths) =>
        TextOf(
            new XElement(
                C + "calendar-multiget",
                Prop(D + "getetag", C + "calendar-data"),
                paths.Select(path => new XElement(D + "href", path))
            )
        );

    /// <exception cref="OutsideException">When the answer is no multi-status.</exception>
    public static MultiStatus Read(OutsideAnswer answer)
    {
        try
        {
            var settings = new XmlReaderSettings
            {
                DtdProcessing = DtdProcessing.Prohibit,
                XmlResolver = null,
                MaxCharactersInDocument = MostCharacters,
            };
            using var reader = XmlReader.Create(new MemoryStream(answer.Body), settings);
            var root = XDocument.Load(reader).Root;
            if (root?.Name != D + "multistatus")
                throw Odd(answer);
            return new MultiStatus(
                [.. root.Elements(D + "response").SelectMany(response => ResourcesOf(response, answer.Address))],
                root.Element(D + "sync-token")?.Value.Trim() is { Length: > 0 } token ? token : null
            );
        }
        catch (XmlException)
        {
            throw Odd(answer);
        }
    }

    private static IEnumerable<DavResource> ResourcesOf(XElement response, Uri asked)
    {
        var found = new Dictionary<XName, XElement>();
        foreach (var stat in response.Elements(D + "propstat").Where(stat => StatusOf(stat) is HttpStatusCode.OK))
        {
            foreach (var property in stat.Elements(D + "prop").Elements())
                found[property.Name] = property;
        }

        foreach (var href in response.Elements(D + "href"))
        {
            if (PathOf(href.Value, asked) is { } path)
                yield return new DavResource(path, StatusOf(response), found);
        }
    }

    /// <summary>
    /// Only the path of what a server names is kept: whatever it says, nobody but that server is asked.
    /// </summary>
    public static string? PathOf(string href, Uri asked) =>
        Uri.TryCreate(asked, href.Trim(), out var address) && address.Scheme is "http" or "https"
            ? new Uri(asked, href.Trim()).AbsolutePath
            : null;

    private static HttpStatusCode? StatusOf(XElement of) =>
        of.Element(D + "status")?.Value.Split(' ', StringSplitOptions.RemoveEmptyEntries) is [_, var code, ..]
        && int.TryParse(code, out var status)
            ? (HttpStatusCode)status
            : null;

    private static XElement Prop(params XName[] properties) =>
        new(D + "prop", properties.Select(name => new XElement(name)));

    private static string TextOf(XElement root) =>
        new StringBuilder("<?xml version=\"1.0\" encoding=\"utf-8\"?>\n")
            .Append(root.ToString(SaveOptions.DisableFormatting))
            .ToString();

    private static OutsideException Odd(OutsideAnswer answer) =>
        new(OutsideFault.Odd, $"What {answer.Address.Host} answered is no calendar server’s.", (int)answer.Status);
}
