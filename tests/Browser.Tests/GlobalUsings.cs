global using LooseLantern.Testing;
global using NodaTime;
global using OpenQA.Selenium;
global using Shouldly;
global using Xunit;
