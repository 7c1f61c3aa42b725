namespace JustRight.Contracts;

/// <summary>One question: can this account do this to that object, or to everything of a class below that branch?</summary>
/// <param name="Account">The account: its logon name, or the key that a sheet gives it.</param>
/// <param name="Act">
/// What it should be able to do, in the words of sheets: <c>write attributes</c>, <c>change membership</c>, …
/// </param>
/// <param name="Attributes">For acts that name attributes.</param>
/// <param name="Of">The class of object below a branch, or of what is to be created in an object; null for the act's own.</param>
/// <param name="At">The object: a distinguished name, a logon name, or an OU's key in the estate; or null.</param>
/// <param name="Below">The branch, instead of an object: an OU's key, a distinguished name, or <c>everywhere</c>.</param>
public sealed record AccessQuestionOrder(
    string Account, string Act, IReadOnlyList<string>? Attributes, string? Of, string? At, string? Below);

/// <summary>Many questions, to be answered from one reading of the directory.</summary>
/// <param name="Questions">The questions; at most ten thousand.</param>
public sealed record AccessOrder(IReadOnlyList<AccessQuestionOrder> Questions);

/// <summary>One answer.</summary>
/// <param name="Account"><c>DOMAIN\name</c>.</param>
/// <param name="Asked">What was asked, in words.</param>
/// <param name="At">The distinguished name of the object or the branch.</param>
/// <param name="Answer"><c>yes</c>, <c>no</c> or <c>unseen</c>.</param>
/// <param name="Can">How many objects grant it.</param>
/// <param name="Cannot">How many refuse it.</param>
/// <param name="Unseen">How many could not be judged.</param>
/// <param name="Words">Why not; empty where it can.</param>
public sealed record AccessAnswerView(
    string Account, string Asked, string At, [property: AnswerWord] string Answer, int Can, int Cannot, int Unseen, string Words);

/// <summary>The answers to many questions.</summary>
/// <param name="Estate">The estate.</param>
/// <param name="Simulated">Whether the directory is the simulation.</param>
/// <param name="ReadFrom">The controller that was read.</param>
/// <param name="ReadAt">When it was read.</param>
/// <param name="Answers">One for each question, in their order.</param>
/// <param name="Unread">Parts of the directory that could not be read.</param>
public sealed record AccessAnswersView(
    string Estate, bool Simulated, string ReadFrom, DateTimeOffset ReadAt, IReadOnlyList<AccessAnswerView> Answers,
    IReadOnlyList<UnreadPartView> Unread);

/// <summary>An order for everything that an account can do to one object.</summary>
/// <param name="Account">The account: its logon name, or the key that a sheet gives it.</param>
/// <param name="At">The object: a distinguished name, a logon name, or an OU's key in the estate.</param>
public sealed record WholeAccessOrder(string Account, string At);

/// <summary>Everything that an account can do to one object, and everything it cannot.</summary>
/// <param name="Estate">The estate.</param>
/// <param name="Simulated">Whether the directory is the simulation.</param>
/// <param name="Account"><c>DOMAIN\name</c>.</param>
/// <param name="At">The object's distinguished name.</param>
/// <param name="Class">Its class.</param>
/// <param name="Owner">Its owner; empty where that could not be read.</param>
/// <param name="ReadFrom">The controller that was read.</param>
/// <param name="ReadAt">When it was read.</param>
/// <param name="Acts">What can be done to such an object, kind by kind.</param>
/// <param name="Unread">Parts of the directory that could not be read.</param>
public sealed record WholeAccessView(
    string Estate, bool Simulated, string Account, string At, string Class, string Owner, string ReadFrom,
    DateTimeOffset ReadAt, IReadOnlyList<ObjectActView> Acts, IReadOnlyList<UnreadPartView> Unread);

/// <summary>One thing that can be done to an object.</summary>
/// <param name="Kind">
/// <c>itself</c>, <c>extended-right</c>, <c>validated-write</c>, <c>write</c>, <c>read</c>, <c>create</c> or <c>delete-child</c>.
/// </param>
/// <param name="What">What, in words: <c>write mail</c>.</param>
/// <param name="Answer"><c>yes</c>, <c>no</c> or <c>unseen</c>.</param>
/// <param name="By">What decides it, in words: the entry, ownership, a privilege, or that nothing gives it.</param>
/// <param name="Entry">The entry's place in the list of <paramref name="At"/>, from 1; 0 where no entry decides.</param>
/// <param name="At">The object in whose list it was found.</param>
/// <param name="From">Where an inherited entry comes from: there it is changed. Empty where no entry decides.</param>
public sealed record ObjectActView(
    [property: ObjectActWord] string Kind, string What, [property: AnswerWord] string Answer, string By, int Entry, string At,
    string From);
