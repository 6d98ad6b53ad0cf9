global using System.Net;
global using System.Net.Http.Json;
global using System.Text.Json;
global using LooseLantern.Testing;
global using NodaTime;
global using Shouldly;
global using Xunit;
