using CsCheck;

namespace Core.Tests;

/// <summary>What counts as a mail address in every form and file.</summary>
public sealed class EmailAddressTests
{
    [Theory]
    [InlineData("ottilie@wren.example", "ottilie@wren.example")]
    [InlineData("ottilie@w.example", "ottilie@w.example")]
    [InlineData("Ottilie.Quist+yard@Wren.Example", "Ottilie.Quist+yard@wren.example")]
    [InlineData("o'neill@wren.example", "o'neill@wren.example")]
    [InlineData("bo@blåvand.example", "bo@xn--blvand-jua.example")]
    [InlineData("bo@xn--blvand-jua.example", "bo@xn--blvand-jua.example")]
    [InlineData("bo@例え.example", "bo@xn--r8jz45g.example")]
    public void An_address_goes_over_the_wire_with_its_domain_in_ASCII(string text, string wire)
    {
        var address = EmailAddress.Read(text).ShouldNotBeNull();
        address.ToString().ShouldBe(wire);
        address.NeedsUtf8.ShouldBeFalse();
    }

    [Theory]
    [InlineData("søren@wren.example")]
    [InlineData("用户@例え.example")]
    [InlineData("यूज़र@wren.example")]
    public void Letters_of_any_script_before_the_at_need_a_server_that_takes_them(string text) =>
        EmailAddress.Read(text).ShouldNotBeNull().NeedsUtf8.ShouldBeTrue();

    [Theory]
    [InlineData(null)]
    [InlineData("")]
    [InlineData("a@b.c")]
    [InlineData("ottilie")]
    [InlineData("ottilie@wren")]
    [InlineData("@wren.example")]
    [InlineData("ottilie@")]
    [InlineData("ottilie@.example")]
    [InlineData("ottilie@wren..example")]
    [InlineData("ottilie@wren.example.")]
    [InlineData("ottilie@-wren.example")]
    [InlineData("ottilie@wren-.example")]
    [InlineData("ottilie@wren_yard.example")]
    [InlineData("ottilie@[192.0.2.1]")]
    [InlineData("ottilie@192.0.2.1")]
    [InlineData("ottilie@wren。example.example")]
    [InlineData("a.@x.example")]
    [InlineData(".a@x.example")]
    [InlineData("a..b@x.example")]
    [InlineData("a b@x.example")]
    [InlineData("a@x@wren.example")]
    [InlineData("\"a b\"@x.example")]
    [InlineData("Ottilie <ottilie@wren.example>")]
    [InlineData("ottilie@wren.example,bo@wren.example")]
    [InlineData("ottilie(quay)@wren.example")]
    [InlineData("ottilie\u0000@wren.example")]
    [InlineData("ottilie\r\n@wren.example")]
    [InlineData("a\u202eb@wren.example")]
    [InlineData("so\u0308ren@wren.example")]
    [InlineData("a\ud83d@wren.example")]
    [InlineData("☃@wren.example")]
    public void What_cannot_be_mailed_is_none(string? text) => EmailAddress.Read(text).ShouldBeNull();

    [Fact]
    public void An_address_is_no_longer_than_servers_take()
    {
        EmailAddress.IsPlausible($"{new string('a', 64)}@wren.example").ShouldBeTrue();
        EmailAddress.IsPlausible($"{new string('a', 65)}@wren.example").ShouldBeFalse();
        EmailAddress.IsPlausible($"{new string('å', 33)}@wren.example").ShouldBeFalse("it is counted in bytes");
        EmailAddress.IsPlausible($"a@{new string('b', 63)}.example").ShouldBeTrue();
        EmailAddress.IsPlausible($"a@{new string('b', 64)}.example").ShouldBeFalse();
        EmailAddress.IsPlausible($"a@{string.Join('.', Enumerable.Repeat("bbbbb", 40))}.example").ShouldBeTrue();
        EmailAddress.IsPlausible($"a@{string.Join('.', Enumerable.Repeat("bbbbb", 41))}.example").ShouldBeFalse();
        EmailAddress
            .IsPlausible($"a@{string.Join('.', Enumerable.Repeat("ååååå", 22))}.example")
            .ShouldBeFalse("it is longer in ASCII");
    }

    [Fact]
    public void One_mailbox_has_one_key()
    {
        EmailAddress.KeyOf(" Bo@Blåvand.example").ShouldBe(EmailAddress.KeyOf("bo@XN--BLVAND-JUA.example"));
        EmailAddress.KeyOf("Nobody ").ShouldBe("nobody");
    }

    [Fact]
    public void Whatever_is_typed_is_read_or_refused_and_what_is_read_reads_the_same_again() =>
        Gen
            .String.Array[1, 3]
            .Select(parts => string.Join('@', parts))
            .Sample(text =>
            {
                if (EmailAddress.Read(text) is not { } address)
                    return;
                EmailAddress.Read(address.ToString()).ShouldBe(address);
                address.Domain.ShouldAllBe(c => char.IsAscii(c));
            });
}
