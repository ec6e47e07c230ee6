namespace Bocca.Stress;

/// <summary>Where the application lies that is tried: built beside this program.</summary>
public static class Sources
{
    /// <summary>The folder of its pages and scripts.</summary>
    public static string Web => Path.Combine(Root, "src", "Bocca.Web");

    public static string Root
    {
        get
        {
            var folder = new DirectoryInfo(AppContext.BaseDirectory);
            while (!File.Exists(Path.Combine(folder.FullName, "Bocca.slnx")))
                folder = folder.Parent ?? throw new DirectoryNotFoundException("This program has to lie inside the project's folder.");
            return folder.FullName;
        }
    }
}
