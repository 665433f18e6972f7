namespace Polycline.Core.Courses;

/// <summary>The moments an item can be given. The computation, chapter 4.</summary>
public enum DateField
{
    Opens,
    Due,
    Closes,
}
