using LooseLantern.StandIns;

await using var app = StandInApp.Create(args);
await app.RunAsync();
