#pragma once
/// The log of an antenna over the years, its pictures and the ways out of it.

#include "app/document/log_desk.h"
#include "app/stages/trim/trim_part.h"

namespace vetchling::app {

class LogBoard;
class LogPanel;

class LogPart : public TrimPart {
    Q_OBJECT
public:
    LogPart(ViewContext& context, StagePage& page, Ledger& ledger, QObject* parent);

    [[nodiscard]] QWidget* log() const;
    [[nodiscard]] bool has(const QWidget* view) const override { return view == log(); }
    void show(const QWidget* view) override;
    [[nodiscard]] QString tableText(const QWidget* view) const override;

signals:
    /// Other entries were chosen.
    void changed();

private:
    void connectPanel();
    void save(const QString& title, const QString& filter, const std::function<Faults(const QString&)>& write);
    void addPicture();
    void showPicture(const QString& kept);

    LogDesk m_desk;
    LogBoard* m_board;
    LogPanel* m_panel;
};

} // namespace vetchling::app
