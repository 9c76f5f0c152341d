#pragma once
/// The ledger's part for the soil under the antennas.

#include "app/view/context.h"
#include "app/widgets/ledger.h"

#include <functional>

namespace vetchling::app {

class SoilPanel : public QObject {
    Q_OBJECT
public:
    SoilPanel(ViewContext& context, Ledger& ledger, QObject* parent);
    void refresh();

private:
    /// A figure was typed: it is of no class any more. @param key of steps that are one change
    void makeOwnWith(const QString& key, const std::function<void(Soil&)>& change);
    void take(int index);
    static QString overFrequency(const Soil& soil);

    ViewContext& m_context;
    QComboBox* m_kind;
    ValueEdit *m_permittivity, *m_conductivity, *m_pair;
    QLabel* m_note;
};

} // namespace vetchling::app
