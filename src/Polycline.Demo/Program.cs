using Polycline.Demo;
using Polycline.Web.Host;

// ./polycline start --empty runs a school without the demo from the same build.
IProfile profile = Environment.GetEnvironmentVariable("POLYCLINE_PROFILE") == "school" ? new SchoolProfile() : new DemoProfile();
return await CommandLine.Run(args, profile);
