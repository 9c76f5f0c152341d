#include "core/study/reference_vertical.h"

namespace vetchling::study {

shapes::AntennaShape referenceVertical(double frequency)
{
    constexpr double height = 0.02; // m
    constexpr int radials = 16;
    shapes::AntennaShape shape = shapes::verticalFamily().standardShape(frequency);
    shape.parameters["base_height_m"] = shape.parameters["radial_end_height_m"] = height;
    shape.parameters["radial_count"] = radials;
    shape.parameters["radiator_m"] = shape.parameters["radial_m"] = 0.25 * wavelength(frequency);
    return shape;
}

Result<Reference> referenceAt(Library& library, const Ground& ground, double frequency, const Watch& watch)
{
    const auto built = shapes::buildOver(referenceVertical(frequency), ground);
    if (!built)
        return built.faults();
    const auto solution = em::solve(std::make_shared<const WireModel>(built->model), frequency, library.tables(), {}, watch);
    if (!solution)
        return solution.faults();
    return unlessStopped(watch, Reference{std::make_shared<const em::FarField>(*solution), solution->impedance});
}

} // namespace vetchling::study
