<#
.SYNOPSIS
Reads facts of this host and prints them as JSON (Just Right host facts, version 1). It changes nothing.

.DESCRIPTION
Reads: what the host is; its local groups with their members; its log-on rights and privileges; its services, scheduled
tasks and web application pools with the accounts they run as; the policies it has applied, with the lists of rights in
their templates. It reads no password, no file of a product and no command line. Of the web server's own settings it reads
the names of pools and the accounts they run as. It needs Windows PowerShell 5.1 and an elevated session; what it cannot read it
names in "unread", with the reason.

It writes one file of its own into the temporary folder, because secedit.exe can only write to a file, and deletes it.

.PARAMETER To
A file to write the facts to. Without it they are printed.

.EXAMPLE
.\collect-host-facts.ps1 -To fm-temp01.json
#>
[CmdletBinding()]
param(
    [string] $To
)

$ErrorActionPreference = 'Stop'
$unread = New-Object System.Collections.ArrayList

function Add-Unread([string] $Part, [string] $Reason) {
    [void] $unread.Add([ordered] @{ part = $Part; reason = $Reason })
}

# Runs one reading. When it fails, the part is named as unread and the rest goes on.
function Read-Part([string] $Part, [scriptblock] $Reading) {
    try { & $Reading } catch { Add-Unread $Part $_.Exception.Message }
}

function Format-Time($Time) {
    if ($null -eq $Time) { return $null }
    return ([datetime] $Time).ToUniversalTime().ToString('yyyy-MM-ddTHH:mm:ss.fffZ', [Globalization.CultureInfo]::InvariantCulture)
}

# The lists of rights of a security template: the lines of its section [Privilege Rights].
function Read-Template([string] $Path) {
    $inside = $false
    foreach ($line in ([IO.File]::ReadAllText($Path) -split "`r?`n")) {
        $text = $line.Trim()
        if ($text.StartsWith('[')) { $inside = $text -eq '[Privilege Rights]'; continue }
        $sign = $text.IndexOf('=')
        if (-not $inside -or $sign -lt 1 -or $text.StartsWith(';')) { continue }
        $entries = @($text.Substring($sign + 1).Split(',') | ForEach-Object { $_.Trim().Trim('"').Trim() } | Where-Object { $_ })
        [ordered] @{ right = $text.Substring(0, $sign).Trim(); entries = $entries }
    }
}

function Read-Rights {
    $file = Join-Path ([IO.Path]::GetTempPath()) ('just-right-' + [guid]::NewGuid().ToString('N') + '.inf')
    try {
        & secedit.exe /export /cfg $file /areas USER_RIGHTS /quiet | Out-Null
        if (-not (Test-Path -LiteralPath $file)) { throw 'secedit.exe exported nothing: an elevated session is needed' }
        Read-Template $file
    }
    finally {
        if (Test-Path -LiteralPath $file) { Remove-Item -LiteralPath $file -Force }
    }
}

# The members of a local group. Get-LocalGroupMember gives up on a group that holds an account which no longer exists; then
# the older directory interface of Windows is asked, which does not.
function Read-Members($Group) {
    try {
        foreach ($member in @(Get-LocalGroupMember -SID "$($Group.SID)")) { [ordered] @{ sid = "$($member.SID)"; name = "$($member.Name)" } }
    }
    catch {
        $first = $_.Exception.Message
        try {
            $members = @(([ADSI] ('WinNT://./' + $Group.Name + ',group')).Invoke('Members'))
            foreach ($member in $members) {
                $bytes = $member.GetType().InvokeMember('objectSid', 'GetProperty', $null, $member, $null)
                [ordered] @{ sid = (New-Object System.Security.Principal.SecurityIdentifier($bytes, 0)).Value }
            }
        }
        catch { throw $first }
    }
}

function Read-LocalGroups {
    foreach ($group in @(Get-LocalGroup | Sort-Object -Property Name)) {
        try {
            [ordered] @{ name = "$($group.Name)"; sid = "$($group.SID)"; members = @(Read-Members $group) }
        }
        catch { Add-Unread "$($group.Name)" $_.Exception.Message }
    }
}

# What each service waits for, by its name: services and drivers by name, groups of services as +name.
function Read-Order {
    $waits = @{}
    foreach ($edge in @(Get-CimInstance -ClassName Win32_DependentService)) {
        $name = "$($edge.Dependent.Name)"
        if (-not $waits.ContainsKey($name)) { $waits[$name] = New-Object System.Collections.ArrayList }
        [void] $waits[$name].Add("$($edge.Antecedent.Name)")
    }
    Read-Part 'groups of services' {
        foreach ($edge in @(Get-CimInstance -ClassName Win32_LoadOrderGroupServiceDependencies)) {
            $name = "$($edge.Dependent.Name)"
            if (-not $waits.ContainsKey($name)) { $waits[$name] = New-Object System.Collections.ArrayList }
            [void] $waits[$name].Add('+' + $edge.Antecedent.Name)
        }
    }
    return $waits
}

# The account and the start of each process that runs a service: a service counts as running under the account its process has.
function Read-Processes($Services) {
    $wanted = @{}
    foreach ($service in $Services) { if ([int] $service.ProcessId -gt 0) { $wanted[[int] $service.ProcessId] = $true } }
    $found = @{}
    foreach ($process in @(Get-CimInstance -ClassName Win32_Process)) {
        $id = [int] $process.ProcessId
        if (-not $wanted.ContainsKey($id)) { continue }
        $entry = @{ since = Format-Time $process.CreationDate; name = $null; sid = $null }
        try {
            $owner = Invoke-CimMethod -InputObject $process -MethodName GetOwner
            if ([int] $owner.ReturnValue -eq 0) { $entry.name = "$($owner.Domain)\$($owner.User)" }
            $sid = Invoke-CimMethod -InputObject $process -MethodName GetOwnerSid
            if ([int] $sid.ReturnValue -eq 0) { $entry.sid = "$($sid.Sid)" }
        }
        catch { $entry.name = $null }
        $found[$id] = $entry
    }
    return $found
}

function Get-StartWord($Service) {
    switch ("$($Service.StartMode)") {
        'Auto' { if ($Service.DelayedAutoStart) { 'automatic-delayed' } else { 'automatic' } }
        'Manual' { 'manual' }
        'Disabled' { 'disabled' }
        'Boot' { 'boot' }
        'System' { 'system' }
        default { throw "the start type '$($Service.StartMode)' of $($Service.Name) is not known" }
    }
}

function Read-Services {
    $services = @(Get-CimInstance -ClassName Win32_Service | Sort-Object -Property Name)
    $waits = @{}
    try { $waits = Read-Order } catch { Add-Unread 'order of services' $_.Exception.Message }
    $processes = @{}
    try { $processes = Read-Processes $services } catch { Add-Unread 'running identities' $_.Exception.Message }
    $awaited = @{}
    foreach ($list in $waits.Values) { foreach ($name in $list) { $awaited["$name"] = $true } }
    # Drivers matter only where a service waits for them.
    $drivers = @()
    if ($awaited.Count -gt 0) { $drivers = @(try { Get-CimInstance -ClassName Win32_SystemDriver | Where-Object { $awaited.ContainsKey("$($_.Name)") } } catch { Add-Unread 'order of services' $_.Exception.Message }) }
    foreach ($service in ($services + $drivers)) {
        $fact = [ordered] @{ name = "$($service.Name)"; start = Get-StartWord $service; running = "$($service.State)" -ne 'Stopped' }
        if ("$($service.DisplayName)") { $fact['title'] = "$($service.DisplayName)" }
        if ("$($service.StartName)") { $fact['account'] = "$($service.StartName)" }
        if ($waits.ContainsKey("$($service.Name)")) { $fact['waits-for'] = @($waits["$($service.Name)"]) }
        $process = if ($null -ne $service.ProcessId) { $processes[[int] $service.ProcessId] }
        if ($null -ne $process) {
            if ($process.name) { $fact['runs-now-as'] = $process.name }
            if ($process.sid) { $fact['runs-now-as-sid'] = $process.sid }
            if ($process.since) { $fact['runs-since'] = $process.since }
        }
        $fact
    }
}

# The SID of an account by the name that the host gives it; nothing when the name means nobody.
function Find-Sid([string] $Name) {
    if ($Name -match '^S-1-[0-9-]+$') { return $Name }
    try { return (New-Object System.Security.Principal.NTAccount($Name)).Translate([System.Security.Principal.SecurityIdentifier]).Value }
    catch { return $null }
}

# Built-in identities have no password and are no account of anybody.
$builtIn = @('S-1-5-18', 'S-1-5-19', 'S-1-5-20')

function Read-Tasks {
    foreach ($task in @(Get-ScheduledTask)) {
        $who = "$($task.Principal.UserId)"
        if (-not $who) { continue } # it runs as whoever of a group is signed in
        $sid = Find-Sid $who
        if ($builtIn -contains $sid -or @('SYSTEM', 'LOCAL SERVICE', 'NETWORK SERVICE') -contains $who) { continue }
        $fact = [ordered] @{ name = "$($task.TaskPath)$($task.TaskName)"; account = $who; 'keeps-password' = @('Password', 'InteractiveOrPassword') -contains "$($task.Principal.LogonType)" }
        if ($sid) { $fact['sid'] = $sid }
        if ("$($task.State)" -eq 'Disabled') { $fact['disabled'] = $true }
        $fact
    }
}

# The pools stand in the web server's own settings; without those there is no web server. Passwords stand there too, in a form
# that only the web server can read: they are passed over.
function Read-Pools {
    $file = Join-Path "$((Get-Item -LiteralPath 'Env:windir').Value)" 'System32\inetsrv\config\applicationHost.config'
    if (-not (Test-Path -LiteralPath $file)) { return }
    $settings = New-Object System.Xml.XmlDocument
    $settings.Load((Convert-Path -LiteralPath $file))
    $default = $settings.SelectSingleNode('/configuration/system.applicationHost/applicationPools/applicationPoolDefaults/processModel')
    foreach ($pool in @($settings.SelectNodes('/configuration/system.applicationHost/applicationPools/add'))) {
        $own = $pool.SelectSingleNode('processModel')
        $kind = ''
        foreach ($model in @($own, $default)) { if (-not $kind -and $null -ne $model) { $kind = $model.GetAttribute('identityType') } }
        $user = ''
        foreach ($model in @($own, $default)) { if (-not $user -and $null -ne $model) { $user = $model.GetAttribute('userName') } }
        $name = $pool.GetAttribute('name')
        $fact = [ordered] @{ name = $name }
        switch ($kind) {
            'SpecificUser' {
                $fact['account'] = $user
                $fact['keeps-password'] = -not $user.EndsWith('$')
                $sid = Find-Sid $user
                if ($sid) { $fact['sid'] = $sid }
            }
            'LocalSystem' { continue }
            'LocalService' { continue }
            'NetworkService' { continue }
            default {
                $fact['account'] = "IIS APPPOOL\$name"
                $fact['keeps-password'] = $false
            }
        }
        if ($fact.Contains('account')) { $fact }
    }
}

# The policies that the host has applied, by its own record (Resultant Set of Policy), the one of highest precedence first;
# and for each right the policy whose list won.
function Read-Policies {
    $namespace = 'root\rsop\computer'
    $order = @{}
    foreach ($link in @(Get-CimInstance -Namespace $namespace -ClassName RSOP_GPLink)) {
        $id = "$($link.GPO.id)"
        if ([int] $link.appliedOrder -gt [int] $order[$id]) { $order[$id] = [int] $link.appliedOrder }
    }
    $applied = @(Get-CimInstance -Namespace $namespace -ClassName RSOP_GPO | Where-Object { $_.enabled -and -not $_.accessDenied -and $_.filterAllowed -and "$($_.guidName)" -match '^\{[0-9A-Fa-f-]{36}\}$' })
    foreach ($policy in @($applied | Sort-Object -Property @{ Expression = { [int] $order["$($_.id)"] }; Descending = $true })) {
        $fact = [ordered] @{ id = "$($policy.guidName)"; name = "$($policy.name)" }
        if ("$($policy.fileSystemPath)") {
            try {
                $template = Join-Path "$($policy.fileSystemPath)" 'Microsoft\Windows NT\SecEdit\GptTmpl.inf'
                if (Test-Path -LiteralPath $template) { $fact['rights'] = @(Read-Template (Convert-Path -LiteralPath $template)) }
                elseif (Test-Path -LiteralPath "$($policy.fileSystemPath)") { $fact['rights'] = @() }
            }
            catch { Add-Unread "template of policy $($policy.name)" $_.Exception.Message }
        }
        $fact
    }
}

function Read-Winners {
    $winners = @{}
    foreach ($setting in @(Get-CimInstance -Namespace 'root\rsop\computer' -ClassName RSOP_UserPrivilegeRight)) {
        if ([int] $setting.Precedence -eq 1 -and "$($setting.GPOID)" -match '\{[0-9A-Fa-f-]{36}\}') { $winners["$($setting.UserRight)"] = $Matches[0] }
    }
    return $winners
}

$facts = [ordered] @{ 'host-facts' = 1; 'read-at' = Format-Time (Get-Date) }
if ($env:USERNAME) { $facts['read-by'] = "$($env:USERDOMAIN)\$($env:USERNAME)".TrimStart('\') }

$computer = Get-CimInstance -ClassName Win32_ComputerSystem
$isController = [int] $computer.DomainRole -ge 4
# Name is cut at fifteen characters; the host's own name is not.
$about = [ordered] @{ name = if ("$($computer.DNSHostName)") { "$($computer.DNSHostName)".Split('.')[0] } else { "$($computer.Name)" } }
if ($computer.PartOfDomain) { $about['domain'] = "$($computer.Domain)" }
$about['role'] = if ($isController) { 'controller' } elseif ($computer.PartOfDomain) { 'member' } else { 'standalone' }
Read-Part 'operating system' {
    $system = Get-CimInstance -ClassName Win32_OperatingSystem
    $about['system'] = "$($system.Caption) $($system.Version)".Trim()
    $about['started-at'] = Format-Time $system.LastBootUpTime
}
$facts['host'] = $about

# A controller has no local groups of its own: those it shows are the domain's, and are read from the directory.
if (-not $isController) { Read-Part 'local groups' { $facts['local-groups'] = @(Read-LocalGroups) } }
Read-Part 'policies' { $facts['policies'] = @(Read-Policies) }
Read-Part 'rights' {
    $winners = @{}
    if ($facts.Contains('policies')) { Read-Part 'sources of rights' { (Read-Winners).GetEnumerator() | ForEach-Object { $winners[$_.Key] = $_.Value } } }
    $facts['rights'] = @(foreach ($list in @(Read-Rights)) {
        if ($winners.ContainsKey($list.right)) { $list['policy'] = $winners[$list.right] }
        $list
    })
}
Read-Part 'services' { $facts['services'] = @(Read-Services) }
Read-Part 'scheduled tasks' { $facts['tasks'] = @(Read-Tasks) }
Read-Part 'web application pools' { $facts['pools'] = @(Read-Pools) }
$facts['unread'] = @($unread)

# Plain ASCII, so that no console or file on the way can spoil a name.
$json = ConvertTo-Json -InputObject $facts -Depth 8
$json = [regex]::Replace($json, '[^\x09\x0A\x0D\x20-\x7E]', { param($match) '\u{0:x4}' -f [int] [char] $match.Value })
if ($To) {
    [IO.File]::WriteAllText($ExecutionContext.SessionState.Path.GetUnresolvedProviderPathFromPSPath($To), $json)
    Write-Output "Facts of $($about.name) were written to $To."
}
else { Write-Output $json }
