using JustRight.Service.Hosting;

return await ServiceHost.RunAsync(args);
