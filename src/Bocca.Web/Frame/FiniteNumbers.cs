using System.Globalization;
using Microsoft.AspNetCore.Mvc.ModelBinding;

namespace Bocca.Web.Frame;

/// <summary>
/// Reads every number with a fraction that a page is sent: finite ones only, with a point, whatever the language of the machine.
/// </summary>
public sealed class FiniteNumbers : IModelBinderProvider, IModelBinder
{
    public IModelBinder? GetBinder(ModelBinderProviderContext context) =>
        context.Metadata.UnderlyingOrModelType == typeof(double) ? this : null;

    public Task BindModelAsync(ModelBindingContext bindingContext)
    {
        var sent = bindingContext.ValueProvider.GetValue(bindingContext.ModelName);
        if (sent == ValueProviderResult.None)
            return Task.CompletedTask;
        bindingContext.ModelState.SetModelValue(bindingContext.ModelName, sent);
        if (string.IsNullOrWhiteSpace(sent.FirstValue) && bindingContext.ModelMetadata.IsReferenceOrNullableType)
            bindingContext.Result = ModelBindingResult.Success(null);
        else if (
            double.TryParse(sent.FirstValue, NumberStyles.Float, CultureInfo.InvariantCulture, out var number) && double.IsFinite(number)
        )
            bindingContext.Result = ModelBindingResult.Success(number);
        else
            bindingContext.ModelState.TryAddModelError(bindingContext.ModelName, $"'{sent.FirstValue}' is not a number.");
        return Task.CompletedTask;
    }
}
