using Spectre.Console;
using Spectre.Console.Rendering;

namespace JustRight.Cli.Output;

/// <summary>
/// Lets nothing that is printed act on the terminal but what the client itself means to: colours and line ends.
/// </summary>
internal sealed class PlainRendering : IRenderHook
{
    /// <inheritdoc/>
    public IEnumerable<IRenderable> Process(RenderOptions options, IEnumerable<IRenderable> renderables) =>
        renderables.Select(r => new Plain(r));

    private sealed class Plain(IRenderable inner) : IRenderable
    {
        public Measurement Measure(RenderOptions options, int maxWidth) => inner.Measure(options, maxWidth);

        public IEnumerable<Segment> Render(RenderOptions options, int maxWidth) => inner.Render(options, maxWidth).Select(
            s => s.IsControlCode || s.IsLineBreak ? s : new Segment(PlainText.Of(s.Text, "\n"), s.Style));
    }
}
