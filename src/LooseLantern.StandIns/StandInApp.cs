using System.Globalization;
using LooseLantern.StandIns.Calendars;
using LooseLantern.StandIns.Mail;
using LooseLantern.StandIns.Video;

namespace LooseLantern.StandIns;

/// <summary>
/// The simulated outside: a calendar server, a mail server and a maker of video rooms, each with a screen. Settings:
/// Data, the folder that keeps the calendars; Demo, a date (2026-12-07) around which the demo's calendars are made
/// where there are none yet; Mail, the folder that keeps the mail, and MailPort, where it comes in (SMTP on loopback);
/// Answers, where answers to invitations go, such as replies.example=127.0.0.1:4826; without it none can be sent.
/// </summary>
public static class StandInApp
{
    public static WebApplication Create(string[] args)
    {
        var builder = WebApplication.CreateBuilder(
            new WebApplicationOptions { Args = args, ContentRootPath = AppContext.BaseDirectory }
        );
        builder.Logging.SetMinimumLevel(LogLevel.Warning);
        var settings = builder.Configuration;
        var calendars = CalendarStandIn.Open(
            settings["Data"]
                ?? throw new InvalidOperationException("Say which folder keeps the calendars: --Data FOLDER"),
            settings["Demo"]
        );
        var mail = new MailStore(
            settings["Mail"] ?? throw new InvalidOperationException("Say which folder keeps the mail: --Mail FOLDER")
        );
        builder.Services.AddSingleton(mail);

        var app = builder.Build();
        CalendarStandIn.Map(app, calendars);
        MailScreen.Map(app, mail, AnswerRoute.Of(settings["Answers"]));
        VideoStandIn.Map(app);
        var port = int.Parse(
            settings["MailPort"] ?? throw new InvalidOperationException("Say where mail comes in: --MailPort PORT"),
            CultureInfo.InvariantCulture
        );
        MailStandIn? server = null;
        app.Lifetime.ApplicationStarted.Register(() => server = MailStandIn.Start(mail, port));
        app.Lifetime.ApplicationStopped.Register(() => server?.DisposeAsync().AsTask().Wait(TimeSpan.FromSeconds(5)));
        return app;
    }
}
