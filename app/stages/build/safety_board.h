#pragma once
/// How far to keep away on each band under the limit and mode that are chosen, what the ends carry, and the usual cautions.

#include "app/document/build_desk.h"
#include "app/view/canvas.h"
#include "app/widgets/ledger.h"

namespace vetchling::app {

class ValueEdit;

class SafetyBoard : public Canvas {
    Q_OBJECT
public:
    SafetyBoard(ViewContext& context, BuildDesk& desk, QWidget* parent = nullptr);

    void render(Sketch& sketch, const QSizeF& size) override;
    [[nodiscard]] QString sentence() const;
    [[nodiscard]] std::vector<QStringList> cells() const;

private:
    double paintBands(Sketch& sketch, double top, double width) const;
    double paintCautions(Sketch& sketch, double top, double width) const;

    BuildDesk& m_desk;
};

/// Cautions that apply to this antenna on this site, the most pressing first: heading and sentence.
std::vector<std::pair<QString, QString>> cautionsOf(const BuildDesk& desk, const Document& document, units::System system);

class SafetyPanel : public QObject {
    Q_OBJECT
public:
    SafetyPanel(ViewContext& context, BuildDesk& desk, Ledger& ledger, QObject* parent);
    void refresh();

private:
    ViewContext& m_context;
    BuildDesk& m_desk;
    QComboBox *m_limit = nullptr, *m_mode = nullptr;
    ValueEdit* m_sending = nullptr;
    QLabel *m_power = nullptr, *m_averaged = nullptr, *m_source = nullptr;
};

} // namespace vetchling::app
