using System.CommandLine;

namespace JustRight.Cli.Commands;

/// <summary>All commands of the client, in the order in which its help lists them.</summary>
internal static class CommandTree
{
    /// <summary>Makes the commands; each is complete, with its options and what it does.</summary>
    public static RootCommand Make() => new(
        "Just Right: service accounts that hold just what they need.\n\n"
        + "Exit codes: 0 just right or done; 1 something deviates, or a step failed; 2 it cannot be done as asked;\n"
        + "3 the service or a part of the estate could not be reached or read; 4 nothing was done yet: you said no, or it waits\n"
        + "for a person or a time; 5 you stopped watching (Ctrl-C), and what was begun goes on in the service.")
    {
        SheetCommands.Make(),
        EstateCommands.Make(),
        InstallCommands.Make(),
        InstallCommands.MakePlan(),
        EstateCommands.MakeSurvey(),
        FitCommands.MakeVerify(),
        GrantCommand.Make(),
        RunCommands.Make(),
        FitCommands.MakeWhy(),
        HistoryCommands.MakeHistory(),
        HistoryCommands.MakeDrift(),
        ProposalCommands.Make(),
        ReviewCommands.Make(),
        AdoptCommands.Make(),
        ExceptionCommands.Make(),
        CalendarCommands.MakeCalendar(),
        CalendarCommands.MakeNotifications(),
        CalendarCommands.MakeSchedule(),
        ReportCommands.MakeReport(),
        ReportCommands.MakeEvidence(),
        ConfirmCommand.Make(),
        ProofCommands.Make(),
        InstanceCommand.Make(),
        EstateListCommands.MakeHosts(),
        EstateListCommands.MakeAccounts(),
        EstateListCommands.MakeGroups(),
        EstateListCommands.MakeInstances(),
        EstateListCommands.MakeUnits(),
        EstateListCommands.MakePolicies(),
        PolicyCommand.Make(),
        FindCommand.Make(),
        SignInCommands.Make(),
        TraceCommands.MakeTrace(),
        TraceCommands.MakeFix(),
        UndoCommand.Make("undo"),
        CompareCommand.Make(),
        HandoverCommand.Make(),
        LdifCommand.Make(),
        ProtectCommand.Make(),
        LogCommands.Make(),
        TokenCommands.Make(),
        SessionCommands.Make(),
        SecretCommands.Make(),
        PasswordCommands.Make(),
        BackupCommand.Make(),
        CompletionCommand.Make(),
        CommandKit.Json,
        CommandKit.Address,
    };
}
