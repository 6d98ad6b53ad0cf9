using LooseLantern.StandIns.Calendars;

// Settings: Data, the folder that keeps the calendars; Demo, the date that the demo's calendars are made around, or nothing for empty ones.
await using var app = CalendarStandIn.Create(args);
await app.RunAsync();
