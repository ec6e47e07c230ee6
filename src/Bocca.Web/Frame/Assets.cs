using System.Security.Cryptography;
using System.Text;

namespace Bocca.Web.Frame;

/// <summary>
/// Where scripts, styles and fonts lie: under an address that carries the fingerprint of all of them, so that a browser keeps them for
/// good and asks for others as soon as one of them is another. They import each other by relative addresses.
/// </summary>
/// <param name="environment">Says where the files are.</param>
public sealed class Assets(IWebHostEnvironment environment)
{
    private const string Root = "/at/";
    private readonly string _present = Root + Fingerprint(environment.WebRootPath);

    /// <summary>The address of a file.</summary>
    /// <param name="path">Its path, from the first slash on.</param>
    public string Address(string path) => _present + path;

    /// <summary>
    /// Serves them: at the present address for good, at an earlier one (of a page that is still open) or at none as long as they stay
    /// what they are.
    /// </summary>
    public void Serve(IApplicationBuilder app)
    {
        app.Use(
            (context, next) =>
            {
                if (context.Request.Path.Value is { } path && path.StartsWith(Root, StringComparison.Ordinal))
                {
                    context.Items[this] = path.StartsWith(_present + "/", StringComparison.Ordinal);
                    var end = path.IndexOf('/', Root.Length);
                    context.Request.Path = end < 0 ? "/" : path[end..];
                }

                return next(context);
            }
        );
        app.UseStaticFiles(
            new StaticFileOptions { OnPrepareResponse = file => file.Context.Response.Headers.CacheControl = Kept(file.Context) }
        );
    }

    private string Kept(HttpContext context) => context.Items[this] is true ? "public, max-age=31536000, immutable" : "no-cache";

    private static string Fingerprint(string folder)
    {
        using var hash = IncrementalHash.CreateHash(HashAlgorithmName.SHA256);
        foreach (var file in Directory.EnumerateFiles(folder, "*", SearchOption.AllDirectories).Order(StringComparer.Ordinal))
        {
            hash.AppendData(Encoding.UTF8.GetBytes(Path.GetRelativePath(folder, file)));
            hash.AppendData(File.ReadAllBytes(file));
        }

        return Convert.ToHexStringLower(hash.GetHashAndReset().AsSpan(0, 8));
    }
}
