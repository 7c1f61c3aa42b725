using Microsoft.CodeAnalysis.CSharp;
using Microsoft.CodeAnalysis.CSharp.Syntax;

namespace JustRight.Structure.Tests;

/// <summary>Imports stand in order, as the formatter writes them: the framework's first, then by name.</summary>
public sealed class ImportTests
{
    [Fact]
    public void Imports_are_in_order() => SourceFile.All.Where(file => !InOrder(file.Text)).Select(file => file.Path)
        .ShouldBeEmpty("dotnet format JustRight.slnx orders them");

    [Theory]
    [InlineData("using System;\nusing System.Text;\nusing JustRight.Core;\nusing JustRight.Core.Fit;\nusing Xunit;", true)]
    [InlineData("using JustRight.Core;\nusing System;", false)]
    [InlineData("using JustRight.Core.Fit;\nusing JustRight.Core;", false)]
    [InlineData("using System;\nusing Row = System.String;\nusing static System.Math;", true)]
    public void The_framework_comes_first_and_aliases_have_an_order_of_their_own(string text, bool inOrder) =>
        InOrder(text).ShouldBe(inOrder);

    private static bool InOrder(string text)
    {
        var names = CSharpSyntaxTree.ParseText(text).GetCompilationUnitRoot().Usings
            .Where(u => u.Alias is null && u.StaticKeyword == default)
            .Select(u => u.Name!.ToString())
            .ToList();
        return names.SequenceEqual(names.OrderBy(n => !IsFramework(n)).ThenBy(n => n, ByParts.Instance));
    }

    private static bool IsFramework(string name) => name == "System" || name.StartsWith("System.", StringComparison.Ordinal);

    /// <summary>Compares names part by part, so that a room stands before what is inside it.</summary>
    private sealed class ByParts : IComparer<string>
    {
        public static readonly ByParts Instance = new();

        public int Compare(string? x, string? y)
        {
            var (left, right) = (x!.Split('.'), y!.Split('.'));
            foreach (var (a, b) in left.Zip(right))
                if (string.Compare(a, b, StringComparison.OrdinalIgnoreCase) is not 0 and var order) return order;
            return left.Length.CompareTo(right.Length);
        }
    }
}
