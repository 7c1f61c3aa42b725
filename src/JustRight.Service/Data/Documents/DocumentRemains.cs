using JustRight.Service.Data.Storage;

namespace JustRight.Service.Data.Documents;

/// <summary>
/// What is kept of a document beside its text, and goes with it. What was done stays: the log, runs, fits, reviews, versions.
/// </summary>
internal static class DocumentRemains
{
    /// <summary>Removes what was read of an estate, and what people told of it.</summary>
    public static void RemoveOfEstate(AppDb db, string name)
    {
        db.Surveys.RemoveRange(db.Surveys.Where(s => s.Estate == name));
        db.People.RemoveRange(db.People.Where(p => p.Estate == name));
        db.DirectoryFiles.RemoveRange(db.DirectoryFiles.Where(f => f.Estate == name));
        db.HostFacts.RemoveRange(db.HostFacts.Where(f => f.Estate == name));
        db.ToldPlaces.RemoveRange(db.ToldPlaces.Where(p => p.Estate == name));
    }

    /// <summary>Removes what people said of an install, and the names that were settled for it.</summary>
    public static void RemoveOfInstall(AppDb db, string name)
    {
        db.SettledNames.RemoveRange(db.SettledNames.Where(n => n.Install == name));
        db.Confirmations.RemoveRange(db.Confirmations.Where(c => c.Install == name));
        db.Exceptions.RemoveRange(db.Exceptions.Where(e => e.Install == name));
    }
}
