using System.Collections;
using System.ComponentModel.DataAnnotations;
using System.Reflection;

namespace JustRight.Tests.Shared;

/// <summary>Holds what the service answers against what its description promises of closed sets of words.</summary>
public static class ClosedSets
{
    /// <summary>Checks an answer, and everything in it.</summary>
    /// <exception cref="InvalidOperationException">It says a word that is not in its set.</exception>
    public static T Checked<T>(T answer)
    {
        Check(answer);
        return answer;
    }

    private static void Check(object? value)
    {
        if (value is null or string || value.GetType().IsPrimitive) return;
        if (value is IEnumerable many)
        {
            foreach (var one in many) Check(one);
            return;
        }

        if (value.GetType().Namespace?.StartsWith("JustRight.Contracts", StringComparison.Ordinal) != true) return;
        foreach (var property in value.GetType().GetProperties().Where(p => p.GetIndexParameters().Length == 0))
        {
            var held = property.GetValue(value);
            if (held is not null && property.GetCustomAttribute<AllowedValuesAttribute>() is { } allowed
                && !allowed.Values.Contains(held))
            {
                throw new InvalidOperationException(
                    $"{value.GetType().Name}.{property.Name} is '{held}', which is none of {string.Join(", ", allowed.Values)}.");
            }

            Check(held);
        }
    }
}
