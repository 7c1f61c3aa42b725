<#
.SYNOPSIS
Makes a list of changes on this host, one after the other, and reports what was before and after each.

.DESCRIPTION
The changes come from a file of JSON beside this script (Just Right host changes, version 1). The script looks before each
change, and skips what is true already, so it can be run again at any time. It stops at the first change that fails. With
-WhatIf it changes nothing and says what it would do. It knows these changes and no other:

  add-local-group-member, remove-local-group-member   Add-LocalGroupMember, Remove-LocalGroupMember
  grant-right, revoke-right                            secedit.exe, with a template of that one right
  set-service-account, give-service-password           Win32_Service.Change
  set-service-start, set-service-order                 sc.exe config
  restart-service                                      Stop-Service, Start-Service
  refresh-policy                                       gpupdate.exe /target:computer /force

Passwords are not in the file: they are asked for when they are needed, and written nowhere. It needs Windows PowerShell 5.1
and an elevated session.

.PARAMETER Changes
The file with the changes; changes.json beside this script unless said otherwise.

.PARAMETER Record
The file to write the record to, one line of JSON a change; record.jsonl beside the changes unless said otherwise.

.PARAMETER FromInput
Reads the changes as one line from the standard input and prints the record: this is how a connection uses the script.

.EXAMPLE
.\make-host-changes.ps1 -WhatIf

.EXAMPLE
.\make-host-changes.ps1
#>
[CmdletBinding(SupportsShouldProcess = $true)]
param(
    [string] $Changes,
    [string] $Record,
    [switch] $FromInput
)

$ErrorActionPreference = 'Stop'

function ConvertTo-PlainJson($Value) {
    $json = ConvertTo-Json -InputObject $Value -Depth 6 -Compress
    return [regex]::Replace($json, '[^\x20-\x7E]', { param($match) '\u{0:x4}' -f [int] [char] $match.Value })
}

function Get-Field($Step, [string] $Name) {
    $property = $Step.PSObject.Properties[$Name]
    if ($null -eq $property) { return $null }
    return $property.Value
}

function Get-NeededField($Step, [string] $Name) {
    $value = Get-Field $Step $Name
    if ([string]::IsNullOrEmpty("$value")) { throw "the change lacks '$Name'" }
    return $value
}

# A text inside a query on management classes: backslash and quote are escaped.
function Format-Query([string] $Text) { return $Text.Replace('\', '\\').Replace("'", "\'") }

# The SID of the account or group a change is about: from the change where it says it, else looked up by the name.
function Get-PrincipalSid($Step) {
    $sid = Get-Field $Step 'principal-sid'
    if ($sid) { return "$sid" }
    $name = "$(Get-NeededField $Step 'principal')"
    $parts = $name.Split([char[]] '\', 2)
    if ($parts.Count -ne 2) { throw "'$name' is not written as DOMAIN\name" }
    $found = @(Get-CimInstance -ClassName Win32_Account -Filter ("Domain='{0}' AND Name='{1}'" -f (Format-Query $parts[0]), (Format-Query $parts[1])))
    if ($found.Count -ne 1) { throw "$name was not found" }
    return "$($found[0].SID)"
}

function Find-LocalGroup($Step) {
    $sid = Get-Field $Step 'group-sid'
    $name = "$(Get-NeededField $Step 'group')"
    $found = @(Get-LocalGroup | Where-Object { if ($sid) { "$($_.SID)" -eq $sid } else { "$($_.Name)" -eq $name } })
    if ($found.Count -ne 1) { throw "there is no local group $name" }
    return $found[0]
}

# The SIDs of a local group's members. Get-LocalGroupMember gives up on a group that holds an account which no longer exists;
# then the older directory interface of Windows is asked, which does not.
function Get-MemberSids($Group) {
    try { return @(Get-LocalGroupMember -SID "$($Group.SID)" | ForEach-Object { "$($_.SID)" }) }
    catch {
        $first = $_.Exception.Message
        try {
            return @(([ADSI] ('WinNT://./' + $Group.Name + ',group')).Invoke('Members') | ForEach-Object {
                (New-Object System.Security.Principal.SecurityIdentifier($_.GetType().InvokeMember('objectSid', 'GetProperty', $null, $_, $null), 0)).Value
            })
        }
        catch { throw $first }
    }
}

function New-TemporaryPath([string] $Ending) { return Join-Path ([IO.Path]::GetTempPath()) ('just-right-' + [guid]::NewGuid().ToString('N') + $Ending) }

# Every right with its entries, as secedit.exe exports them.
function Get-RightLists {
    $file = New-TemporaryPath '.inf'
    try {
        & secedit.exe /export /cfg $file /areas USER_RIGHTS /quiet | Out-Null
        if (-not (Test-Path -LiteralPath $file)) { throw 'secedit.exe exported nothing: an elevated session is needed' }
        $lists = @{}
        $inside = $false
        foreach ($line in ([IO.File]::ReadAllText($file) -split "`r?`n")) {
            $text = $line.Trim()
            if ($text.StartsWith('[')) { $inside = $text -eq '[Privilege Rights]'; continue }
            $sign = $text.IndexOf('=')
            if ($inside -and $sign -gt 0) { $lists[$text.Substring(0, $sign).Trim()] = @($text.Substring($sign + 1).Split(',') | ForEach-Object { $_.Trim() } | Where-Object { $_ }) }
        }
        return $lists
    }
    finally { if (Test-Path -LiteralPath $file) { Remove-Item -LiteralPath $file -Force -WhatIf:$false -Confirm:$false } }
}

function Get-RightEntries([string] $Right) {
    $lists = Get-RightLists
    if ($lists.ContainsKey($Right)) { return @($lists[$Right]) }
    return @()
}

# Whether an entry of a list means the principal: by SID, or by name where the host writes names.
function Test-Entry([string] $Entry, [string] $Sid, $Step) {
    if ($Entry -eq "*$Sid") { return $true }
    $name = "$(Get-Field $Step 'principal')"
    return $name -and ($Entry -eq $name)
}

# Replaces the list of one right; a template names that right alone, so every other stays as it is.
function Set-RightEntries([string] $Right, [string[]] $Entries) {
    if ($Right -notmatch '^Se[A-Za-z]+$') { throw "'$Right' is no right" }
    $template = New-TemporaryPath '.inf'
    $database = New-TemporaryPath '.sdb'
    # secedit.exe keeps a journal of its own beside the database, and leaves it there
    $journal = [IO.Path]::ChangeExtension($database, '.jfm')
    try {
        $text = "[Unicode]`r`nUnicode=yes`r`n[Version]`r`nsignature=`"`$CHICAGO`$`"`r`nRevision=1`r`n[Privilege Rights]`r`n$Right = $($Entries -join ',')`r`n"
        [IO.File]::WriteAllText($template, $text, [Text.Encoding]::Unicode)
        & secedit.exe /configure /db $database /cfg $template /areas USER_RIGHTS /quiet | Out-Null
    }
    finally {
        foreach ($file in @($template, $database, $journal)) { if (Test-Path -LiteralPath $file) { Remove-Item -LiteralPath $file -Force -WhatIf:$false -Confirm:$false } }
    }
}

function Find-Service($Step) {
    $name = "$(Get-NeededField $Step 'service')"
    if ($name -match '["/\\]') { throw "'$name' is no name of a service" }
    $found = @(Get-CimInstance -ClassName Win32_Service -Filter ("Name='{0}'" -f (Format-Query $name)))
    if ($found.Count -ne 1) { throw "there is no service $name" }
    return $found[0]
}

# The same account may be written in several ways: with or without spaces, in any case.
function Format-Account([string] $Account) {
    $plain = $Account.Replace(' ', '').ToLowerInvariant()
    switch ($plain) {
        '' { return 'localsystem' }
        'ntauthority\system' { return 'localsystem' }
        'ntauthority\localsystem' { return 'localsystem' }
        'localservice' { return 'ntauthority\localservice' }
        'networkservice' { return 'ntauthority\networkservice' }
        default { return $plain }
    }
}

function Get-StartWord($Service) {
    switch ("$($Service.StartMode)") {
        'Auto' { if ($Service.DelayedAutoStart) { return 'automatic-delayed' } else { return 'automatic' } }
        default { return "$($Service.StartMode)".ToLowerInvariant() }
    }
}

function Get-WaitsFor([string] $Name) {
    $list = @(Get-CimInstance -ClassName Win32_DependentService | Where-Object { "$($_.Dependent.Name)" -eq $Name } | ForEach-Object { "$($_.Antecedent.Name)" })
    $groups = @(try { Get-CimInstance -ClassName Win32_LoadOrderGroupServiceDependencies | Where-Object { "$($_.Dependent.Name)" -eq $Name } | ForEach-Object { '+' + $_.Antecedent.Name } } catch { Write-Verbose $_.Exception.Message })
    return @($list + $groups)
}

# The account that a running service's process has; empty when it does not run.
function Get-RunningAccount($Service) {
    if ("$($Service.State)" -ne 'Running' -or [int] $Service.ProcessId -le 0) { return '' }
    $process = @(Get-CimInstance -ClassName Win32_Process -Filter "ProcessId=$([int] $Service.ProcessId)")
    if ($process.Count -ne 1) { return '' }
    $owner = Invoke-CimMethod -InputObject $process[0] -MethodName GetOwner
    if ([int] $owner.ReturnValue -ne 0) { throw "what $($Service.Name) runs as cannot be read (error $($owner.ReturnValue))" }
    return "$($owner.Domain)\$($owner.User)"
}

# Since when it runs, or nothing.
function Get-RunningSince($Service) {
    if ("$($Service.State)" -ne 'Running' -or [int] $Service.ProcessId -le 0) { return $null }
    $process = @(Get-CimInstance -ClassName Win32_Process -Filter "ProcessId=$([int] $Service.ProcessId)")
    if ($process.Count -ne 1 -or $null -eq $process[0].CreationDate) { return $null }
    return ([datetime] $process[0].CreationDate).ToUniversalTime()
}

# Whether a service that shall start anew still runs since before. Where that is not told, nothing shows it. Times are compared as
# milliseconds since 1970, in whole numbers: a time as text would come out of the JSON as a date in one PowerShell and not in another.
function Test-RunsOn($Step, $Service) {
    if (-not (Get-Field $Step 'anew')) { return $false }
    $ran = Get-Field $Step 'ran-since-ms'
    if ($null -eq $ran) { return $true }
    $since = Get-RunningSince $Service
    if ($null -eq $since) { return $false }
    $ticks = [long] $since.Ticks - 621355968000000000
    return (($ticks - $ticks % 10000) / 10000) -eq [long] $ran
}

function Invoke-Tool([string] $Tool, [string[]] $Arguments) {
    $global:LASTEXITCODE = 0
    $output = @(& $Tool @Arguments) -join ' '
    if ($LASTEXITCODE) { throw "$Tool ended with $($LASTEXITCODE): $($output.Trim())" }
}

# What is there now: whether the change is true already, and what was seen.
function Read-State($Step) {
    switch ("$(Get-NeededField $Step 'change')") {
        { $_ -in 'add-local-group-member', 'remove-local-group-member' } {
            $group = Find-LocalGroup $Step
            $sid = Get-PrincipalSid $Step
            $is = @(Get-MemberSids $group) -contains $sid
            $seen = if ($is) { "$($Step.principal) is in $($group.Name)" } else { "$($Step.principal) is not in $($group.Name)" }
            return @{ done = $is -eq ($_ -eq 'add-local-group-member'); seen = $seen }
        }
        { $_ -in 'grant-right', 'revoke-right' } {
            $right = "$(Get-NeededField $Step 'right')"
            $sid = Get-PrincipalSid $Step
            $entries = @(Get-RightEntries $right)
            $is = @($entries | Where-Object { Test-Entry $_ $sid $Step }).Count -gt 0
            return @{ done = $is -eq ($_ -eq 'grant-right'); seen = "$right is $(if ($entries) { $entries -join ', ' } else { 'nobody''s' })" }
        }
        'set-service-account' {
            $service = Find-Service $Step
            return @{ done = (Format-Account "$($service.StartName)") -eq (Format-Account "$(Get-NeededField $Step 'account')"); seen = "$($service.Name) is set to run as $(if ($service.StartName) { $service.StartName } else { 'LocalSystem' })" }
        }
        'give-service-password' {
            $service = Find-Service $Step
            $account = "$(Get-NeededField $Step 'account')"
            if ((Format-Account "$($service.StartName)") -ne (Format-Account $account)) { throw "$($service.Name) is set to run as $($service.StartName), not as $account" }
            return @{ done = $false; hidden = $true; seen = "$($service.Name) is set to run as $($service.StartName); its password cannot be read back" }
        }
        'set-service-start' {
            $service = Find-Service $Step
            $word = Get-StartWord $service
            return @{ done = $word -eq "$(Get-NeededField $Step 'start')"; seen = "$($service.Name) starts $word" }
        }
        'set-service-order' {
            $service = Find-Service $Step
            $now = @(Get-WaitsFor "$($service.Name)")
            $wanted = @(Get-Field $Step 'waits-for')
            return @{ done = (($now | Sort-Object) -join '/') -eq (($wanted | Sort-Object) -join '/'); seen = "$($service.Name) waits for $(if ($now) { $now -join ', ' } else { 'nothing' })" }
        }
        'restart-service' {
            $service = Find-Service $Step
            $now = Get-RunningAccount $service
            $stopped = @(@(Get-Field $Step 'dependents') | Where-Object { $_ -and (Get-Service -Name $_).Status -ne 'Running' })
            $done = $now -and ((Format-Account $now) -eq (Format-Account "$(Get-NeededField $Step 'account')")) -and $stopped.Count -eq 0 -and -not (Test-RunsOn $Step $service)
            $since = Get-RunningSince $service
            $words = if ((Get-Field $Step 'anew') -and $null -ne $since) { " since $($since.ToString('yyyy-MM-dd HH:mm:ss', [Globalization.CultureInfo]::InvariantCulture)) UTC" } else { '' }
            return @{ done = [bool] $done; hidden = [bool] (Get-Field $Step 'anew') -and $null -eq (Get-Field $Step 'ran-since-ms'); seen = "$($service.Name) $(if ($now) { "runs as $now$words" } else { 'does not run' })$(if ($stopped) { "; stopped: $($stopped -join ', ')" })" }
        }
        'refresh-policy' {
            $lists = Get-RightLists
            $behind = @(@(Get-Field $Step 'expect') | Where-Object {
                $sid = Get-PrincipalSid $_
                $expected = $_
                $is = @(@($lists["$($expected.right)"]) | Where-Object { $_ -and (Test-Entry $_ $sid $expected) }).Count -gt 0
                $is -ne [bool] $expected.holds
            } | ForEach-Object { "$($_.right) for $($_.principal)" })
            return @{ done = $behind.Count -eq 0; seen = $(if ($behind) { "not yet as the policies have it: $($behind -join ', ')" } else { 'as the policies have it' }) }
        }
        default { throw "this script knows no change '$_'" }
    }
}

function Read-Password($Step) {
    if ($FromInput) {
        $given = Get-Field $Step 'password'
        if ($null -eq $given) { throw "the password of $($Step.account) was not given" }
        return "$given"
    }
    $typed = Read-Host -AsSecureString -Prompt "Password of $($Step.account)"
    return (New-Object System.Net.NetworkCredential('', $typed)).Password
}

function Set-ServiceAccount($Step) {
    $service = Find-Service $Step
    $password = if (Get-Field $Step 'needs-password') { Read-Password $Step } else { '' }
    $answer = Invoke-CimMethod -InputObject $service -MethodName Change -Arguments @{ StartName = "$($Step.account)"; StartPassword = $password }
    switch ([int] $answer.ReturnValue) {
        0 { return }
        2 { throw 'access was denied' }
        15 { throw "the name or the password of $($Step.account) is wrong" }
        22 { throw "$($Step.account) is no account, or may not log on here" }
        default { throw "Win32_Service.Change answered $($answer.ReturnValue)" }
    }
}

function Restart-WithDependents($Step) {
    $service = Find-Service $Step
    $name = "$($service.Name)"
    $isRight = (Format-Account (Get-RunningAccount $service)) -eq (Format-Account "$($Step.account)") -and -not (Test-RunsOn $Step $service)
    if ("$($service.State)" -ne 'Stopped' -and -not $isRight) { Stop-Service -Name $name -Force }
    if ("$((Get-Service -Name $name).Status)" -ne 'Running') { Start-Service -Name $name }
    foreach ($dependent in @(Get-Field $Step 'dependents')) {
        if ($dependent -and "$((Get-Service -Name $dependent).Status)" -ne 'Running') { Start-Service -Name $dependent }
    }
}

function Set-State($Step) {
    switch ("$($Step.change)") {
        'add-local-group-member' { Add-LocalGroupMember -SID "$((Find-LocalGroup $Step).SID)" -Member (Get-PrincipalSid $Step) }
        'remove-local-group-member' { Remove-LocalGroupMember -SID "$((Find-LocalGroup $Step).SID)" -Member (Get-PrincipalSid $Step) }
        'grant-right' { Set-RightEntries "$($Step.right)" @(@(Get-RightEntries "$($Step.right)") + @('*' + (Get-PrincipalSid $Step))) }
        'revoke-right' {
            $sid = Get-PrincipalSid $Step
            Set-RightEntries "$($Step.right)" @(@(Get-RightEntries "$($Step.right)") | Where-Object { -not (Test-Entry $_ $sid $Step) })
        }
        { $_ -in 'set-service-account', 'give-service-password' } { Set-ServiceAccount $Step }
        'set-service-start' {
            $words = @{ 'automatic' = 'auto'; 'automatic-delayed' = 'delayed-auto'; 'manual' = 'demand'; 'disabled' = 'disabled' }
            if (-not $words.ContainsKey("$($Step.start)")) { throw "'$($Step.start)' is no start type that can be set" }
            Invoke-Tool 'sc.exe' @('config', "$((Find-Service $Step).Name)", 'start=', $words["$($Step.start)"])
        }
        'set-service-order' {
            $names = @(Get-Field $Step 'waits-for')
            if (@($names | Where-Object { $_ -match '["/\\]' }).Count -gt 0) { throw 'a name to wait for is no name of a service' }
            Invoke-Tool 'sc.exe' @('config', "$((Find-Service $Step).Name)", 'depend=', $(if ($names) { $names -join '/' } else { '/' }))
        }
        'restart-service' { Restart-WithDependents $Step }
        'refresh-policy' { Invoke-Tool 'gpupdate.exe' @('/target:computer', '/force') }
    }
}

# Says what came of a change: to the connection as JSON, to a person in words, and to the record.
function Write-Result($Step, [int] $Number, [string] $Result, [string] $Before, [string] $After) {
    $line = ConvertTo-PlainJson ([ordered] @{ step = $Number; id = "$($Step.id)"; result = $Result; before = $Before; after = $After; at = (Get-Date).ToUniversalTime().ToString('yyyy-MM-ddTHH:mm:ss.fffZ', [Globalization.CultureInfo]::InvariantCulture); by = "$($env:USERDOMAIN)\$($env:USERNAME)".TrimStart('\') })
    if ($FromInput) { Write-Output $line }
    else {
        Write-Output ('{0,3}. {1}: {2}' -f $Number, "$($Step.words)", $Result)
        if ($Before) { Write-Output "     before: $Before" }
        if ($After) { Write-Output "     after:  $After" }
        if ($Record -and -not $WhatIfPreference) { [IO.File]::AppendAllText($Record, "$line`n") }
    }
}

if ($FromInput) { $text = [Console]::In.ReadLine() }
else {
    if (-not $Changes) { $Changes = Join-Path $PSScriptRoot 'changes.json' }
    $text = [IO.File]::ReadAllText((Convert-Path -LiteralPath $Changes))
    if (-not $Record) { $Record = Join-Path (Split-Path -Parent (Convert-Path -LiteralPath $Changes)) 'record.jsonl' }
}
# A faulty list is named as such and never quoted: it may hold a password.
$computer = Get-CimInstance -ClassName Win32_ComputerSystem
$here = if ("$($computer.DNSHostName)") { "$($computer.DNSHostName)".Split('.')[0] } else { "$($computer.Name)" }
$wrong = ''
try { $list = ConvertFrom-Json -InputObject $text } catch { $wrong = 'the list of changes is not JSON' }
if (-not $wrong -and $list.'host-changes' -ne 1) { $wrong = 'this is no list of host changes of version 1' }
if (-not $wrong -and "$($list.host)".Split('.')[0] -ne $here) { $wrong = "these changes are for $($list.host), and this is $here" }
if ($wrong) {
    Write-Result ([pscustomobject] @{ id = ''; words = 'the list of changes' }) 0 'failed' '' $wrong
    exit 2
}

$number = 0
foreach ($step in @($list.steps)) {
    $number++
    $before = ''
    try {
        $state = Read-State $step
        $before = $state.seen
        if ($state.done) { Write-Result $step $number 'already' $before ''; continue }
        if (-not $PSCmdlet.ShouldProcess($here, "$($step.words)")) { Write-Result $step $number 'would' $before ''; continue }
        Set-State $step
        $after = Read-State $step
        if (-not $after.done -and -not $after['hidden']) { throw "made, but not seen afterwards: $($after.seen)" }
        Write-Result $step $number 'made' $before $after.seen
    }
    catch {
        Write-Result $step $number 'failed' $before $_.Exception.Message
        if (-not $FromInput) { Write-Output "Stopped at change $number of $(@($list.steps).Count): the ones before it stand, the ones after it were not touched. Run this again once the cause is fixed." }
        exit 1
    }
}
