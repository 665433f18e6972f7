namespace Polycline.Web.Foundation.Files;

/// <summary>How much can be sent and kept, in bytes. People are told beforehand, and it is enforced afterwards.</summary>
public sealed record FileLimits
{
    private const long Megabyte = 1024 * 1024,
        Gigabyte = 1024 * Megabyte;

    /// <summary>The largest file a teacher can send.</summary>
    public long LargestOfTeachers { get; init; } = 2 * Gigabyte;

    /// <summary>The largest file a student can send.</summary>
    public long LargestOfStudents { get; init; } = 250 * Megabyte;

    /// <summary>Everything a teacher has sent that is in use.</summary>
    public long RoomOfTeachers { get; init; } = 40 * Gigabyte;

    /// <summary>Everything a student has sent that is in use.</summary>
    public long RoomOfStudents { get; init; } = 2 * Gigabyte;

    /// <summary>All the files of a course together.</summary>
    public const long RoomOfCourse = 20 * Gigabyte;

    /// <summary>A file is sent in pieces of this size, so that a lost connection costs little.</summary>
    public const int Piece = 4 * (int)Megabyte;

    public long Largest(bool teacher) => teacher ? LargestOfTeachers : LargestOfStudents;

    public long Room(bool teacher) => teacher ? RoomOfTeachers : RoomOfStudents;

    /// <summary>So many bytes in words: “2 GB”, “1.4 MB”, “312 kB”.</summary>
    public static string InWords(long bytes) =>
        bytes >= Gigabyte ? Of(bytes / (double)Gigabyte, "GB")
        : bytes >= Megabyte ? Of(bytes / (double)Megabyte, "MB")
        : bytes >= 1024 ? Of(bytes / 1024.0, "kB")
        : bytes == 1 ? "1 byte"
        : $"{bytes} bytes";

    private static string Of(double number, string unit) =>
        string.Create(
            System.Globalization.CultureInfo.InvariantCulture,
            $"{(number < 10 ? Math.Round(number, 1) : Math.Round(number))} {unit}"
        );
}
