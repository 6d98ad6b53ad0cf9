global using LooseLantern.Core;
global using LooseLantern.Formats.ICalendar.Reading;
global using LooseLantern.Formats.ICalendar.Writing;
global using NodaTime;
global using Shouldly;
global using Xunit;
