using Microsoft.EntityFrameworkCore.ChangeTracking;

namespace LooseLantern.Server.Data;

/// <summary>
/// Tells arrays apart by what is in them. EF's own comparer makes delegates anew for each comparison, which stood out
/// in the profile of a booking.
/// </summary>
internal sealed class ArrayComparer<T>()
    : ValueComparer<T[]>((one, other) => AreSame(one, other), array => HashOf(array), array => CopyOf(array))
{
    private static bool AreSame(T[]? one, T[]? other) =>
        one is null || other is null ? one == other : one.AsSpan().SequenceEqual(other);

    private static int HashOf(T[] array)
    {
        var hash = new HashCode();
        foreach (var item in array)
            hash.Add(item);
        return hash.ToHashCode();
    }

    private static T[] CopyOf(T[] array) => [.. array];
}
