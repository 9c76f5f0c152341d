#pragma once
/// The practice yard: it needs no antenna, and leaves the design alone.

#include "app/document/yard_desk.h"
#include "app/stages/trim/trim_part.h"

namespace vetchling::app {

class YardBoard;
class YardPanel;

class YardPart : public TrimPart {
    Q_OBJECT
public:
    YardPart(ViewContext& context, StagePage& page, Ledger& ledger, QObject* parent);

    [[nodiscard]] QWidget* yard() const;
    [[nodiscard]] bool has(const QWidget* view) const override { return view == yard(); }
    void show(const QWidget* view) override;
    [[nodiscard]] QString tableText(const QWidget* view) const override;

private:
    YardDesk m_desk;
    YardBoard* m_board;
    YardPanel* m_panel;
};

} // namespace vetchling::app
