# A PRETEND Windows host, for tests: it stands in for the Windows commands that the two scripts use, with their documented
# parameters and outputs, over a state kept in a file of JSON. It refuses what Windows refuses.

# The file of the host's state: what the session of serve.ps1 says, or, in a PowerShell of one's own, the environment.
$script:StatePath = if ($global:SimulatedHostState) { $global:SimulatedHostState } else { $env:PRETEND_HOST_STATE }

function Get-State { return [IO.File]::ReadAllText($script:StatePath) | ConvertFrom-Json }

function Save-State($State) {
    $next = "$script:StatePath.$PID"
    [IO.File]::WriteAllText($next, (ConvertTo-Json -InputObject $State -Depth 12))
    [IO.File]::Move($next, $script:StatePath, $true)
}

# The tests can let a command break off: the named command ends the whole session before or after it did its work.
function Stop-AsRehearsed([string] $Moment) {
    $state = Get-State
    if ("$($state.rehearse)" -ne $Moment) { return }
    $state.rehearse = ''
    Save-State $state
    if (-not $global:SimulatedSession) { [Environment]::Exit(255) }
    [void] $global:SimulatedSession.BeginStop($null, $null)
    while ($true) { Start-Sleep -Seconds 1 } # until it is stopped, which nothing in the session can catch
}

function Find-Principal($State, [string] $Name) {
    if ($Name -like 'S-1-*') {
        $known = @($State.principals | Where-Object { $_.sid -eq $Name })
        if ($known.Count -eq 1) { return $known[0] }
        return $null
    }
    $found = @($State.principals | Where-Object { $_.name -eq $Name -or "$($State.'domain-short')\$($_.name)" -eq $Name -or "$($_.name)@$($State.domain)" -eq $Name })
    if ($found.Count -eq 1) { return $found[0] }
    return $null
}

function Read-Filter([string] $Filter) {
    $wanted = @{}
    foreach ($match in [regex]::Matches($Filter, "(\w+)\s*=\s*(?:'((?:[^'\\]|\\.)*)'|(\d+))")) {
        $wanted[$match.Groups[1].Value] = if ($match.Groups[3].Success) { $match.Groups[3].Value } else { $match.Groups[2].Value -replace '\\(.)', '$1' }
    }
    return $wanted
}

function New-Instance([string] $Class, $Properties) {
    $instance = [pscustomobject] $Properties
    $instance.PSObject.TypeNames.Insert(0, "SimulatedCim#$Class")
    Add-Member -InputObject $instance -NotePropertyName '__Class' -NotePropertyValue $Class
    return $instance
}

function Get-StartMode($Service) { switch ($Service.start) { 'automatic-delayed' { 'Auto' } 'automatic' { 'Auto' } 'manual' { 'Manual' } 'disabled' { 'Disabled' } default { $_ } } }

# As Windows has it: the short name is cut at fifteen characters.
function Get-ShortName($State) { $name = $State.name.ToUpperInvariant(); if ($name.Length -gt 15) { return $name.Substring(0, 15) } else { return $name } }

# The folder of Windows of this host, where it has one; everything else is the file system's own affair.
function Get-Item {
    [CmdletBinding()]
    param([Parameter(Position = 0)] [string] $LiteralPath)
    if ($LiteralPath -ne 'Env:windir') { return Microsoft.PowerShell.Management\Get-Item -LiteralPath $LiteralPath }
    return [pscustomobject] @{ Name = 'windir'; Value = "$((Get-State).windows)" }
}

function Get-ScheduledTask {
    [CmdletBinding()]
    param()
    $state = Get-State
    if (@($state.fails) -contains 'Get-ScheduledTask') { throw 'Access is denied. (Get-ScheduledTask)' }
    foreach ($t in @($state.tasks)) {
        if ($t) { [pscustomobject] @{ TaskPath = $t.path; TaskName = $t.name; State = $t.state; Principal = [pscustomobject] @{ UserId = "$($t.user)"; LogonType = $t.logon } } }
    }
}

function Get-CimInstance {
    [CmdletBinding()]
    param([Parameter(Position = 0)] [string] $ClassName, [string] $Namespace = 'root\cimv2', [string] $Filter)
    $state = Get-State
    if (@($state.fails) -contains $ClassName) { throw "Access is denied. ($ClassName)" }
    $wanted = Read-Filter $Filter
    $all = switch ($ClassName) {
        'Win32_ComputerSystem' { New-Instance $ClassName @{ Name = Get-ShortName $state; DNSHostName = $state.name; Domain = $state.domain; PartOfDomain = $true; DomainRole = $(if ($state.role -eq 'controller') { 5 } else { 3 }) } }
        'Win32_OperatingSystem' { New-Instance $ClassName @{ Caption = 'PRETEND Windows Server 2022'; Version = '10.0.20348'; LastBootUpTime = [datetime]::Parse('2026-11-20T04:00:00Z') } }
        'Win32_Account' { foreach ($p in $state.principals) { New-Instance $ClassName @{ Name = $p.name; Domain = $state.'domain-short'; SID = $p.sid } } }
        'Win32_Service' {
            foreach ($s in $state.services) {
                New-Instance $ClassName @{
                    Name = $s.name; DisplayName = "$($s.title)"; StartName = "$($s.account)"; StartMode = Get-StartMode $s; DelayedAutoStart = $s.start -eq 'automatic-delayed'
                    State = $(if ($s.pid) { 'Running' } else { 'Stopped' }); ProcessId = [uint32] $s.pid
                }
            }
        }
        'Win32_SystemDriver' { foreach ($d in @($state.drivers)) { if ($d) { New-Instance $ClassName @{ Name = $d; DisplayName = $d; StartMode = 'System'; State = 'Running' } } } }
        'Win32_DependentService' {
            foreach ($s in $state.services) { foreach ($w in @($s.waits)) { if ($w -and -not $w.StartsWith('+')) { New-Instance $ClassName @{ Dependent = [pscustomobject] @{ Name = $s.name }; Antecedent = [pscustomobject] @{ Name = $w } } } } }
        }
        'Win32_LoadOrderGroupServiceDependencies' {
            foreach ($s in $state.services) { foreach ($w in @($s.waits)) { if ($w -and $w.StartsWith('+')) { New-Instance $ClassName @{ Dependent = [pscustomobject] @{ Name = $s.name }; Antecedent = [pscustomobject] @{ Name = $w.Substring(1) } } } } }
        }
        'Win32_Process' { foreach ($s in $state.services) { if ($s.pid) { New-Instance $ClassName @{ ProcessId = [uint32] $s.pid; CreationDate = [datetime] $s.since; Owner = $s.owner } } } }
        'RSOP_GPO' { foreach ($p in @($state.policies)) { if ($p) { New-Instance $ClassName @{ id = "cn=$($p.id)"; guidName = $p.id; name = $p.name; fileSystemPath = "$($p.path)"; enabled = $true; accessDenied = $false; filterAllowed = $true } } } }
        'RSOP_GPLink' { $order = 0; foreach ($p in @($state.policies)) { if ($p) { $order++; New-Instance $ClassName @{ GPO = [pscustomobject] @{ id = "cn=$($p.id)" }; appliedOrder = [uint32] $order } } } }
        'RSOP_UserPrivilegeRight' { foreach ($w in @($state.winners)) { if ($w) { New-Instance $ClassName @{ UserRight = $w.right; Precedence = [uint32] 1; GPOID = "CN=$($w.policy),CN=Policies,CN=System" } } } }
        default { throw "Invalid class: $ClassName" }
    }
    foreach ($one in @($all)) {
        if ($null -eq $one) { continue }
        $fits = $true
        foreach ($key in $wanted.Keys) { if ("$($one.$key)" -ne $wanted[$key]) { $fits = $false } }
        if ($fits) { $one }
    }
}

function Invoke-CimMethod {
    [CmdletBinding()]
    param($InputObject, [string] $MethodName, [hashtable] $Arguments)
    $state = Get-State
    switch ("$($InputObject.__Class).$MethodName") {
        'Win32_Process.GetOwner' {
            $parts = "$($InputObject.Owner)".Split('\', 2)
            return [pscustomobject] @{ ReturnValue = [uint32] 0; Domain = $parts[0]; User = $parts[1] }
        }
        'Win32_Process.GetOwnerSid' {
            $sid = switch ("$($InputObject.Owner)") { 'NT AUTHORITY\SYSTEM' { 'S-1-5-18' } 'NT AUTHORITY\LOCAL SERVICE' { 'S-1-5-19' } 'NT AUTHORITY\NETWORK SERVICE' { 'S-1-5-20' } default { (Find-Principal $state $_).sid } }
            return [pscustomobject] @{ ReturnValue = [uint32] 0; Sid = $sid }
        }
        'Win32_Service.Change' {
            Stop-AsRehearsed 'before Change'
            $service = @($state.services | Where-Object { $_.name -eq $InputObject.Name })[0]
            if ($Arguments.ContainsKey('StartName')) {
                $name = $Arguments.StartName
                if ($name -notlike 'NT AUTHORITY\*' -and $name -ne 'LocalSystem') {
                    $principal = Find-Principal $state $name
                    if ($null -eq $principal) { return [pscustomobject] @{ ReturnValue = [uint32] 22 } }
                    $service.typed = "$($Arguments.StartPassword)"
                }
                $service.account = $name
            }
            Save-State $state
            Stop-AsRehearsed 'after Change'
            return [pscustomobject] @{ ReturnValue = [uint32] 0 }
        }
        default { throw "Invalid method: $MethodName" }
    }
}

function Get-LocalGroup {
    [CmdletBinding()]
    param([Parameter(Position = 0)] [string] $Name, [string] $SID)
    foreach ($g in (Get-State).groups) { if ((-not $Name -or $g.name -like $Name) -and (-not $SID -or $g.sid -eq $SID)) { [pscustomobject] @{ Name = $g.name; SID = $g.sid; ObjectClass = 'Group' } } }
}

function Find-Group($State, [string] $Name, [string] $Sid) {
    $found = @($State.groups | Where-Object { ($Name -and $_.name -eq $Name) -or ($Sid -and $_.sid -eq $Sid) })
    if ($found.Count -ne 1) { throw "Group $Name$Sid was not found." }
    return $found[0]
}

function Get-LocalGroupMember {
    [CmdletBinding()]
    param([Parameter(Position = 0)] [string] $Group, [string] $Name, [string] $SID)
    $state = Get-State
    $found = Find-Group $state "$Group$Name" $SID
    foreach ($sid in @($found.members)) { if ($sid -like 'S-1-5-21-*' -and $null -eq (Find-Principal $state $sid)) { throw 'Failed to compare two elements in the array.' } }
    foreach ($sid in @($found.members)) { if ($sid) { [pscustomobject] @{ Name = "$($state.'domain-short')\$((Find-Principal $state $sid).name)"; SID = $sid; ObjectClass = 'User'; PrincipalSource = 'ActiveDirectory' } } }
}

function Add-LocalGroupMember {
    [CmdletBinding(SupportsShouldProcess = $true)]
    param([Parameter(Position = 0)] [string] $Group, [string] $Name, [string] $SID, [Parameter(Position = 1)] [string[]] $Member)
    Stop-AsRehearsed 'before Add-LocalGroupMember'
    $state = Get-State
    $found = Find-Group $state "$Group$Name" $SID
    foreach ($one in $Member) {
        $principal = Find-Principal $state $one
        if ($null -eq $principal) { throw "Principal $one was not found." }
        if (@($found.members) -contains $principal.sid) { throw "$one is already a member of group $($found.name)." }
        $found.members = @(@($found.members) + $principal.sid | Where-Object { $_ })
    }
    $state.made = @(@($state.made) + "add $($Member -join ',') to $($found.name)" | Where-Object { $_ })
    Save-State $state
    Stop-AsRehearsed 'after Add-LocalGroupMember'
}

function Remove-LocalGroupMember {
    [CmdletBinding(SupportsShouldProcess = $true)]
    param([Parameter(Position = 0)] [string] $Group, [string] $Name, [string] $SID, [Parameter(Position = 1)] [string[]] $Member)
    $state = Get-State
    $found = Find-Group $state "$Group$Name" $SID
    foreach ($one in $Member) {
        $principal = Find-Principal $state $one
        $sid = if ($null -ne $principal) { $principal.sid } else { $one }
        if (@($found.members) -notcontains $sid) { throw "Member $one was not found in group $($found.name)." }
        $found.members = @($found.members | Where-Object { $_ -ne $sid })
    }
    $state.made = @(@($state.made) + "remove $($Member -join ',') from $($found.name)" | Where-Object { $_ })
    Save-State $state
}

$script:Switches = @('/export', '/configure', '/cfg', '/db', '/areas', '/quiet')

function Read-Switches([object[]] $Arguments) {
    $read = @{}
    for ($i = 0; $i -lt $Arguments.Count; $i++) {
        if ($script:Switches -notcontains "$($Arguments[$i])") { continue }
        $read["$($Arguments[$i])"] = if ($i + 1 -lt $Arguments.Count -and $script:Switches -notcontains "$($Arguments[$i + 1])") { "$($Arguments[$i + 1])" } else { '' }
    }
    return $read
}

function Read-RightLines([string] $Path) {
    $inside = $false
    foreach ($line in ([IO.File]::ReadAllText($Path) -split "`r?`n")) {
        if ($line.Trim().StartsWith('[')) { $inside = $line.Trim() -eq '[Privilege Rights]'; continue }
        if ($inside -and $line.Contains('=')) { , @($line.Split('=', 2)[0].Trim(), @($line.Split('=', 2)[1].Split(',') | ForEach-Object { $_.Trim() } | Where-Object { $_ })) }
    }
}

function Set-Right($State, [string] $Right, $Entries) {
    if ($State.rights.PSObject.Properties[$Right]) { $State.rights.$Right = @($Entries) }
    else { Add-Member -InputObject $State.rights -NotePropertyName $Right -NotePropertyValue @($Entries) }
}

function secedit.exe {
    $switches = Read-Switches $args
    $state = Get-State
    if (@($state.fails) -contains 'secedit.exe') { $global:LASTEXITCODE = 1; return }
    if ($switches.ContainsKey('/export')) {
        $lines = @('[Unicode]', 'Unicode=yes', '[Privilege Rights]')
        foreach ($right in $state.rights.PSObject.Properties) { if (@($right.Value | Where-Object { $_ }).Count -gt 0) { $lines += "$($right.Name) = $(@($right.Value) -join ',')" } }
        $lines += @('[Version]', 'signature="$CHICAGO$"', 'Revision=1', '')
        [IO.File]::WriteAllText($switches['/cfg'], ($lines -join "`r`n"), [Text.Encoding]::Unicode)
    }
    elseif ($switches.ContainsKey('/configure')) {
        Stop-AsRehearsed 'before secedit.exe'
        $state = Get-State
        foreach ($line in @(Read-RightLines $switches['/cfg'])) {
            $entries = foreach ($entry in $line[1]) {
                if ($entry.StartsWith('*')) { $entry } elseif ($principal = Find-Principal $state $entry) { "*$($principal.sid)" } else { $global:LASTEXITCODE = 1; return }
            }
            Set-Right $state $line[0] @($entries)
            $state.made = @(@($state.made) + "set $($line[0])" | Where-Object { $_ })
        }
        Save-State $state
        [IO.File]::WriteAllText($switches['/db'], 'simulated')
        [IO.File]::WriteAllText([IO.Path]::ChangeExtension($switches['/db'], '.jfm'), 'simulated') # as Windows Server 2016 and later do
        Stop-AsRehearsed 'after secedit.exe'
    }
    $global:LASTEXITCODE = 0
}

# A refresh: each right that a policy names gets the list of the policy of highest precedence, whole.
function gpupdate.exe {
    $state = Get-State
    $winners = @{}
    foreach ($policy in @($state.policies)) {
        if (-not $policy) { continue }
        $template = Join-Path $policy.path 'Microsoft/Windows NT/SecEdit/GptTmpl.inf'
        if (-not (Test-Path -LiteralPath $template)) { continue }
        foreach ($line in @(Read-RightLines $template)) {
            Set-Right $state $line[0] @($line[1])
            $winners[$line[0]] = $policy.id
        }
    }
    $state.winners = @($winners.GetEnumerator() | ForEach-Object { [pscustomobject] @{ right = $_.Key; policy = $_.Value } })
    Save-State $state
    $global:LASTEXITCODE = 0
    'Computer Policy update has completed successfully.'
}

function sc.exe {
    $state = Get-State
    $name = $args[1]
    $service = @($state.services | Where-Object { $_.name -eq $name })[0]
    if ($args[0] -ne 'config' -or $null -eq $service) { $global:LASTEXITCODE = 1060; return '[SC] OpenService FAILED 1060' }
    for ($i = 2; $i -lt $args.Count; $i += 2) {
        switch ($args[$i]) {
            'start=' { $service.start = switch ($args[$i + 1]) { 'auto' { 'automatic' } 'delayed-auto' { 'automatic-delayed' } 'demand' { 'manual' } 'disabled' { 'disabled' } } }
            'depend=' { $service.waits = @($args[$i + 1].Split('/') | Where-Object { $_ }) }
            default { $global:LASTEXITCODE = 1639; return 'USAGE' }
        }
    }
    Save-State $state
    $global:LASTEXITCODE = 0
    '[SC] ChangeServiceConfig SUCCESS'
}

function Get-Service {
    [CmdletBinding()]
    param([Parameter(Position = 0)] [string] $Name)
    $found = @((Get-State).services | Where-Object { $_.name -eq $Name })
    if ($found.Count -ne 1) { throw "Cannot find any service with service name '$Name'." }
    [pscustomobject] @{ Name = $found[0].name; Status = $(if ($found[0].pid) { 'Running' } else { 'Stopped' }) }
}

function Stop-Service {
    [CmdletBinding(SupportsShouldProcess = $true)]
    param([Parameter(Position = 0)] [string] $Name, [switch] $Force)
    $state = Get-State
    $dependents = @($state.services | Where-Object { @($_.waits) -contains $Name -and $_.pid })
    if ($dependents.Count -gt 0 -and -not $Force) { throw "Cannot stop service '$Name' because it has dependent services." }
    foreach ($dependent in $dependents) { Stop-Service -Name $dependent.name -Force }
    $state = Get-State
    $service = @($state.services | Where-Object { $_.name -eq $Name })[0]
    ($service.pid, $service.owner) = (0, '')
    $state.made = @(@($state.made) + "stop $Name" | Where-Object { $_ })
    Save-State $state
    Stop-AsRehearsed "after Stop-Service $Name"
}

function Start-Service {
    [CmdletBinding(SupportsShouldProcess = $true)]
    param([Parameter(Position = 0)] [string] $Name)
    $state = Get-State
    $service = @($state.services | Where-Object { $_.name -eq $Name })[0]
    if ($service.start -eq 'disabled') { throw "Service '$Name' cannot be started: it is disabled." }
    foreach ($wanted in @($service.waits | Where-Object { $_ -and -not $_.StartsWith('+') -and @($state.drivers) -notcontains $_ })) {
        if ("$((Get-Service -Name $wanted).Status)" -ne 'Running') { Start-Service -Name $wanted }
    }
    $state = Get-State
    $service = @($state.services | Where-Object { $_.name -eq $Name })[0]
    $owner = switch -Wildcard ("$($service.account)") { '' { 'NT AUTHORITY\SYSTEM' } 'LocalSystem' { 'NT AUTHORITY\SYSTEM' } 'NT AUTHORITY\NetworkService' { 'NT AUTHORITY\NETWORK SERVICE' } 'NT AUTHORITY\LocalService' { 'NT AUTHORITY\LOCAL SERVICE' } default { '' } }
    if (-not $owner) {
        $principal = Find-Principal $state $service.account
        $counts = @($principal.sid) + @($principal.groups)
        if (@(@($state.rights.SeServiceLogonRight) | Where-Object { $counts -contains "$_".TrimStart('*') }).Count -eq 0) { throw "Service '$Name' cannot be started due to a logon failure: the right to log on as a service was not granted." }
        if ($principal.password -and $service.typed -ne $principal.password) { throw "Service '$Name' cannot be started due to a logon failure: the user name or password is incorrect." }
        $owner = "$($state.'domain-short')\$($principal.name)"
    }
    $service.owner = $owner
    $service.pid = [int] (@($state.services | ForEach-Object { [int] $_.pid } | Measure-Object -Maximum).Maximum) + 4
    $service.since = (Get-Date).ToUniversalTime().ToString('o')
    $state.made = @(@($state.made) + "start $Name" | Where-Object { $_ })
    Save-State $state
}

# The shell of Windows, called by its name as a client does; a second start would only cost time.
function powershell.exe {
    $command = $args[[array]::IndexOf($args, '-Command') + 1]
    & ([scriptblock]::Create($command))
}

Export-ModuleMember -Function Get-Item, Get-ScheduledTask, Get-CimInstance, Invoke-CimMethod, Get-LocalGroup, Get-LocalGroupMember, Add-LocalGroupMember, Remove-LocalGroupMember, secedit.exe, gpupdate.exe, sc.exe, Get-Service, Stop-Service, Start-Service, powershell.exe
