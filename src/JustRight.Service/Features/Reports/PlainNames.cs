using System.IO.Compression;
using System.Xml;
using System.Xml.Linq;

namespace JustRight.Service.Features.Reports;

/// <summary>
/// Takes the prefixes off the names in a workbook's parts. To a reader that knows namespaces nothing changes; there are widely
/// used ones that do not, and take a prefixed workbook for an empty one.
/// </summary>
internal static class PlainNames
{
    /// <summary>The same workbook without prefixes.</summary>
    public static byte[] Of(byte[] workbook)
    {
        using var stream = new MemoryStream();
        stream.Write(workbook);
        using (var parts = new ZipArchive(stream, ZipArchiveMode.Update, leaveOpen: true))
        {
            foreach (var part in parts.Entries.Where(e =>
                e.FullName.StartsWith("xl/", StringComparison.Ordinal)
                    && e.FullName.EndsWith(".xml", StringComparison.Ordinal)).ToList())
            {
                XDocument text;
                using (var read = part.Open()) text = XDocument.Load(read, LoadOptions.PreserveWhitespace);
                text.Root!.Attributes().Where(a => a.IsNamespaceDeclaration && a.Value == text.Root.Name.NamespaceName).Remove();
                using var write = part.Open();
                write.SetLength(0);
                using var writer = XmlWriter.Create(write);
                text.Save(writer);
            }
        }

        return stream.ToArray();
    }
}
