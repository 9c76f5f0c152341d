#pragma once
/// Fields of an antenna's configurations at single frequencies, quickly: one mesh for each configuration, no refinement.

#include "core/study/answers.h"

#include <memory>
#include <optional>
#include <vector>

namespace vetchling::study {

/// Counted from the line.
struct FedField {
    Complex port; ///< ohm
    em::FarField field;
    double passed;                                  ///< part of the power that the transformer lets through
    [[nodiscard]] double gain(double atPort) const; ///< dBi
};

class FedFields {
public:
    /// @param curves of the configurations @param highest Hz that is asked for
    FedFields(Library& library, const std::vector<CurvePointer>& curves, double highest, Care care, const Watch& watch);
    ~FedFields();
    /// Nothing where it could not be solved, or was stopped.
    std::optional<FedField> at(std::size_t configuration, double frequency);

private:
    struct Meshes;
    Library& m_library;
    const std::vector<CurvePointer>& m_curves;
    const Watch& m_watch;
    double m_highest;
    std::unique_ptr<Meshes> m_meshes;
};

} // namespace vetchling::study
