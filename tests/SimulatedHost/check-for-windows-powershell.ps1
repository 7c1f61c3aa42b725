# Parses a script and names everything in it that Windows PowerShell 5.1 does not have: syntax, commands, parameters.
param([string] $Path)

$errors = $null
$tokens = $null
$ast = [Management.Automation.Language.Parser]::ParseFile($Path, [ref] $tokens, [ref] $errors)
foreach ($e in $errors) { "line $($e.Extent.StartLineNumber): $($e.Message)" }

# Commands of Windows PowerShell 5.1 and of Windows that the scripts may use, with the parameters that 5.1 documents.
$known = @{
    'Add-LocalGroupMember' = 'Group Name SID Member'; 'Remove-LocalGroupMember' = 'Group Name SID Member'; 'Get-LocalGroup' = 'Name SID'; 'Get-LocalGroupMember' = 'Group Name SID Member'
    'Get-CimInstance' = 'ClassName Namespace Filter'; 'Invoke-CimMethod' = 'InputObject MethodName Arguments'
    'Get-ScheduledTask' = ''; 'Get-Item' = 'LiteralPath'; 'Get-Service' = 'Name'; 'Stop-Service' = 'Name Force'; 'Start-Service' = 'Name'
    'ConvertTo-Json' = 'InputObject Depth Compress'; 'ConvertFrom-Json' = 'InputObject'
    'New-Object' = 'TypeName ArgumentList'; 'Get-Date' = ''; 'Join-Path' = 'Path ChildPath'; 'Split-Path' = 'Path Parent'; 'Convert-Path' = 'LiteralPath'; 'Test-Path' = 'LiteralPath'
    'Remove-Item' = 'LiteralPath Force WhatIf Confirm'; 'Where-Object' = 'FilterScript'; 'ForEach-Object' = 'Process'; 'Sort-Object' = 'Property Descending'; 'Write-Output' = 'InputObject'
    'Write-Verbose' = 'Message'; 'Read-Host' = 'AsSecureString Prompt'; 'Out-Null' = ''; 'secedit.exe' = '*'; 'sc.exe' = '*'; 'gpupdate.exe' = '*'
}
$own = @($ast.FindAll({ param($n) $n -is [Management.Automation.Language.FunctionDefinitionAst] }, $true) | ForEach-Object { $_.Name })

foreach ($command in $ast.FindAll({ param($n) $n -is [Management.Automation.Language.CommandAst] }, $true)) {
    $name = $command.GetCommandName()
    $line = $command.Extent.StartLineNumber
    if ($null -eq $name) {
        if ($command.CommandElements[0].Extent.Text -notin '$Reading', '$Tool') { "line ${line}: runs what a variable names: $($command.Extent.Text)" }
        continue
    }
    if ($own -contains $name) { continue }
    if (-not $known.ContainsKey($name)) { "line ${line}: $name is not on the list of commands"; continue }
    if ($known[$name] -eq '*') { continue }
    $parameters = @($known[$name].Split(' '))
    foreach ($element in $command.CommandElements) {
        if ($element -is [Management.Automation.Language.CommandParameterAst] -and $parameters -notcontains $element.ParameterName) { "line ${line}: $name has no parameter $($element.ParameterName) in 5.1" }
    }
}
foreach ($node in $ast.FindAll({ param($n) $n.GetType().Name -in 'TernaryExpressionAst', 'PipelineChainAst' -or ($n -is [Management.Automation.Language.BinaryExpressionAst] -and "$($n.Operator)" -eq 'QuestionQuestion') }, $true)) { "line $($node.Extent.StartLineNumber): syntax newer than 5.1: $($node.Extent.Text)" }
foreach ($token in $tokens) { if ("$($token.Kind)" -in 'QuestionQuestion', 'QuestionQuestionEquals', 'QuestionDot', 'QuestionLBracket', 'AndAnd', 'OrOr', 'Clean') { "line $($token.Extent.StartLineNumber): syntax newer than 5.1: $($token.Text)" } }
foreach ($byte in [IO.File]::ReadAllBytes($Path)) { if ($byte -gt 126) { 'a character beyond ASCII: 5.1 reads a script without a byte order mark in the code page of the machine'; break } }
