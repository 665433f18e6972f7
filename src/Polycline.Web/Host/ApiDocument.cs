using System.Text.Json;
using System.Text.Json.Nodes;
using System.Text.RegularExpressions;
using Microsoft.AspNetCore.OpenApi;
using Microsoft.OpenApi;
using Polycline.Core;
using Polycline.Web.Foundation.AccessControl;
using Polycline.Web.Foundation.Http;

namespace Polycline.Web.Host;

/// <summary>The OpenAPI document of the application, of which the front end's types are made.</summary>
internal static partial class ApiDocument
{
    public static void Describe(OpenApiOptions options)
    {
        options.AddDocumentTransformer(
            (document, _, _) =>
            {
                document.Info = new() { Title = "Polycline", Version = "1" };
                document.Servers?.Clear();
                return Task.CompletedTask;
            }
        );
        // Whatever is read can be read through other eyes and at another moment; Viewpoint binds these in one place.
        options.AddOperationTransformer(
            (operation, context, _) =>
            {
                var marks = context.Description.ActionDescriptor.EndpointMetadata;
                var rule = marks.OfType<AccessRule>().FirstOrDefault();
                var isRead = context.Description.HttpMethod == HttpMethods.Get || marks.OfType<OnlyAsks>().Any();
                if (isRead && rule?.May.HasFlag(May.Anyone) == false)
                    foreach (var name in (string[])["at", "as"])
                        (operation.Parameters ??= []).Add(
                            new OpenApiParameter
                            {
                                Name = name,
                                In = ParameterLocation.Query,
                                Schema = new OpenApiSchema { Type = JsonSchemaType.String },
                            }
                        );
                return Task.CompletedTask;
            }
        );
        // The address's parameters are listed whether or not a handler asks for them.
        options.AddOperationTransformer(
            (operation, context, _) =>
            {
                foreach (Match name in InPath().Matches(context.Description.RelativePath ?? ""))
                    if (operation.Parameters?.Any(known => known.Name == name.Groups[1].Value) != true)
                        (operation.Parameters ??= []).Add(
                            new OpenApiParameter
                            {
                                Name = name.Groups[1].Value,
                                In = ParameterLocation.Path,
                                Required = true,
                                Schema = new OpenApiSchema { Type = JsonSchemaType.Integer, Format = "int64" },
                            }
                        );
                return Task.CompletedTask;
            }
        );
        // Ids travel as numbers.
        options.AddSchemaTransformer(
            (schema, context, _) =>
            {
                if (IsId(context.JsonTypeInfo.Type))
                {
                    schema.Type = JsonSchemaType.Integer;
                    if (Nullable.GetUnderlyingType(context.JsonTypeInfo.Type) is not null)
                        schema.Type |= JsonSchemaType.Null;
                    schema.Format = "int64";
                    schema.Description = null;
                    schema.Properties?.Clear();
                }
                if (context.JsonTypeInfo.ElementType is { } element && IsId(element))
                    schema.Items = new OpenApiSchema { Type = JsonSchemaType.Integer, Format = "int64" };
                if (context.JsonTypeInfo.ElementType is { } listed && Json.WordsOf(listed) is { Count: > 0 } each)
                    schema.Items = new OpenApiSchema { Type = JsonSchemaType.String, Enum = [.. each.Select(word => (JsonNode)word)] };
                if (Json.WordsOf(context.JsonTypeInfo.Type) is { Count: > 0 } known)
                    schema.Enum = [.. known.Select(word => (JsonNode)word)];
                // A word that may be missing needs no schema of its own: the member says that it may be.
                if (schema.Enum is { } words)
                {
                    schema.Type = JsonSchemaType.String;
                    schema.Enum = [.. words.Where(word => word?.GetValueKind() == JsonValueKind.String)];
                }
                return Task.CompletedTask;
            }
        );
        options.CreateSchemaReferenceId = type => IsId(type.Type) ? null : OpenApiOptions.CreateDefaultSchemaReferenceId(type);
    }

    private static bool IsId(Type type) =>
        (Nullable.GetUnderlyingType(type) ?? type) is { IsGenericType: true } id && id.GetGenericTypeDefinition() == typeof(Id<>);

    [GeneratedRegex(@"\{(\w+)[^}]*\}")]
    private static partial Regex InPath();
}
