global using LooseLantern.Core;
global using LooseLantern.Core.Hours;
global using LooseLantern.Core.Openings;
global using LooseLantern.Formats.ICalendar.Reading;
global using LooseLantern.Formats.ICalendar.Writing;
global using NodaTime;
global using Shouldly;
global using Xunit;
