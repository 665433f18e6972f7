using System.Linq.Expressions;
using Shouldly;

namespace Polycline.Testing;

/// <summary>Of all of a list, where an empty list would prove nothing.</summary>
public static class Each
{
    /// <summary>There are some, and each of them is so.</summary>
    /// <param name="many">What was found.</param>
    /// <param name="so">What has to hold for each.</param>
    public static void ShouldEachBe<T>(this IEnumerable<T> many, Expression<Func<T, bool>> so)
    {
        var found = many.ToList();
        found.ShouldNotBeEmpty("there is nothing here of which it could hold");
        found.ShouldAllBe(so);
    }
}
