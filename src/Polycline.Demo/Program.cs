using Polycline.Demo;
using Polycline.Web.Host;

return await CommandLine.Run(args, new DemoProfile());
