using System.Globalization;
using JustRight.Service.Hosting;

// What is written and sorted must not depend on the machine's language.
CultureInfo.CurrentCulture = CultureInfo.DefaultThreadCurrentCulture = CultureInfo.InvariantCulture;
return await ServiceCommand.RunAsync(args);
