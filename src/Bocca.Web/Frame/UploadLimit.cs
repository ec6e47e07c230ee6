using Microsoft.AspNetCore.Http.Metadata;
using Microsoft.AspNetCore.Mvc;

namespace Bocca.Web.Frame;

/// <summary>How much a page may be sent at once, and what is said where it was more. A page without it takes <see cref="Usual"/>.</summary>
[AttributeUsage(AttributeTargets.Class)]
public sealed class UploadLimitAttribute : RequestFormLimitsAttribute, IRequestSizeLimitMetadata
{
    /// <summary>Bytes that any page may be sent: forms and answers are far smaller (ours, editable).</summary>
    public const long Usual = 1_000_000;

    /// <param name="bytes">Bytes of the file; what goes with it may be as large as any form.</param>
    /// <param name="tooMuch">What is said where it was more.</param>
    public UploadLimitAttribute(long bytes, string tooMuch)
    {
        (MaxRequestBodySize, TooMuch) = (bytes + Usual, tooMuch);
        // The form's own limit never speaks first.
        MultipartBodyLengthLimit = 2 * (bytes + Usual);
        // What a child plays is held in memory alone: a file of the system's temporary folder would outlive a process that is killed.
        MemoryBufferThreshold = (int)(bytes + Usual);
    }

    public long? MaxRequestBodySize { get; }

    public string TooMuch { get; }
}
