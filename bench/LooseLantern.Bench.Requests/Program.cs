using System.Globalization;
using LooseLantern.Bench.Requests;

// ./lantern bench requests [openings|bookings|crowd|work|phone|sql]: ratios, each beside what is measured in the same
// run.
CultureInfo.CurrentCulture = CultureInfo.InvariantCulture;
if (args is ["sql"])
{
    await InSql.RunAsync();
    return 0;
}

string[] all = ["openings", "bookings", "crowd", "work", "phone"];
var wanted = args is [] ? all : args;
if (wanted.Except(all).FirstOrDefault() is { } unknown)
{
    Console.Error.WriteLine($"There is no \"{unknown}\" to measure; choose {string.Join(", ", all)}.");
    return 2;
}

using var web = WebRoot.Copy();
await using var yard = await Yard.OpenAsync();
await yard.DoAsync(Bare.Table);
foreach (var what in wanted)
{
    await (
        what switch
        {
            "openings" => Openings.RunAsync(yard),
            "bookings" => Bookings.RunAsync(yard),
            "phone" => Phone.RunAsync(yard),
            "work" => Work.RunAsync(yard),
            _ => Crowd.RunAsync(yard),
        }
    );
}

return 0;
