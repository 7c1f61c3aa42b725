# Real PowerShell that stays and runs what is sent to the PRETEND Windows hosts, one session after another, each in a runspace of
# its own that holds nothing of the ones before. Started once, since a start costs more than most sessions.
#
# A session is a connection to a port on loopback: a line with the file of the host's state, a line with the command (base64), the
# standard input with > before each line, and a line with a dot. Back come lines of output (o), of errors (x), and the exit code (e);
# no exit code when the session was broken off.
param([Parameter(Mandatory)] [int] $Port)

# What takes the exit code of a session: of all that a host of PowerShell may be asked, only this.
Add-Type -TypeDefinition @'
using System;
using System.Globalization;
using System.Management.Automation.Host;
public sealed class SessionHost : PSHost
{
    public int? ExitCode { get; private set; }
    public override CultureInfo CurrentCulture { get { return CultureInfo.InvariantCulture; } }
    public override CultureInfo CurrentUICulture { get { return CultureInfo.InvariantCulture; } }
    public override Guid InstanceId { get; } = Guid.NewGuid();
    public override string Name { get { return "PRETEND"; } }
    public override PSHostUserInterface UI { get { return null; } }
    public override Version Version { get { return new Version(1, 0); } }
    public override void EnterNestedPrompt() { throw new NotSupportedException(); }
    public override void ExitNestedPrompt() { throw new NotSupportedException(); }
    public override void NotifyBeginApplication() { }
    public override void NotifyEndApplication() { }
    public override void SetShouldExit(int exitCode) { ExitCode = exitCode; }
}
'@

function Read-Session([IO.StreamReader] $From) {
    $session = @{ State = $From.ReadLine(); Command = [Text.Encoding]::UTF8.GetString([Convert]::FromBase64String($From.ReadLine())) }
    $session.Input = (& { while ($null -ne ($line = $From.ReadLine()) -and $line -ne '.') { $line.Substring(1) } }) -join "`n"
    return $session
}

# Runs a session and writes what came of it.
function Invoke-Session($Session, [IO.StreamWriter] $To) {
    $sessionHost = [SessionHost]::new()
    $initial = [Management.Automation.Runspaces.InitialSessionState]::CreateDefault()
    $initial.Variables.Add([Management.Automation.Runspaces.SessionStateVariableEntry]::new('SimulatedHostState', $Session.State, ''))
    $initial.ImportPSModule($env:PRETEND_MODULE)
    $runspace = [runspacefactory]::CreateRunspace($sessionHost, $initial)
    [Console]::SetIn([IO.StringReader]::new($Session.Input))
    try {
        $runspace.Open()
        $shell = [powershell]::Create($runspace)
        $runspace.SessionStateProxy.SetVariable('SimulatedSession', $shell)
        $code = 0
        try { foreach ($said in $shell.AddScript($Session.Command).Invoke()) { foreach ($line in "$said" -split "`r?`n") { $To.WriteLine("o$line") } } }
        catch [Management.Automation.PipelineStoppedException] { return } # broken off, as rehearsed
        catch {
            foreach ($line in "$($_.Exception.InnerException ?? $_.Exception)" -split "`r?`n") { $To.WriteLine("x$line") }
            $code = 1
        }
        foreach ($fault in $shell.Streams.Error) { foreach ($line in "$fault" -split "`r?`n") { $To.WriteLine("x$line") } }
        $To.WriteLine("e$($sessionHost.ExitCode ?? $code)")
    }
    finally { $runspace.Dispose() }
}

$listener = [Net.Sockets.TcpListener]::new([Net.IPAddress]::Loopback, $Port)
$listener.Start(512)
while ($true) {
    $client = $listener.AcceptTcpClient()
    try {
        $stream = $client.GetStream()
        $session = Read-Session ([IO.StreamReader]::new($stream))
        if (-not $session.State) { continue } # somebody who only looked whether this answers
        $to = [IO.StreamWriter]::new($stream)
        Invoke-Session $session $to
        $to.Flush()
    }
    catch [IO.IOException] { } # the client went away
    finally { $client.Dispose() }
}
