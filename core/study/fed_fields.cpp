#include "core/study/fed_fields.h"

#include "core/em/solver.h"

#include <cmath>

namespace vetchling::study {

struct FedFields::Meshes {
    em::MeshOptions options;
    std::vector<std::unique_ptr<em::PreparedModel>> prepared;
};

double FedField::gain(double atPort) const { return atPort + 10.0 * std::log10(std::max(passed, 1e-30)); }

FedFields::FedFields(Library& library, const std::vector<CurvePointer>& curves, double highest, Care care, const Watch& watch)
    : m_library(library), m_curves(curves), m_watch(watch), m_highest(highest), m_meshes(std::make_unique<Meshes>())
{
    m_meshes->prepared.resize(curves.size());
    if (care == Care::Coarse)
        m_meshes->options.degree = 2;
}

FedFields::~FedFields() = default;

std::optional<FedField> FedFields::at(std::size_t configuration, double frequency)
{
    const Curve& curve = *m_curves[configuration];
    std::unique_ptr<em::PreparedModel>& prepared = m_meshes->prepared[configuration];
    if (!prepared)
        prepared = std::make_unique<em::PreparedModel>(std::make_shared<const WireModel>(curve.built->model), m_meshes->options, m_highest,
                                                       m_watch);
    if (m_watch.stopped())
        return std::nullopt;
    const Result<em::Solution> solution = prepared->solve(frequency, m_library.tables(), m_watch);
    if (!solution)
        return std::nullopt;
    const auto& transformer = curve.built->transformer;
    return FedField{solution->impedance, em::FarField(*solution),
                    transformer ? transformer->at(frequency).efficiency(solution->impedance) : 1.0};
}

} // namespace vetchling::study
