#pragma once
/// A stage of the work: a page with one large graphic, a ledger of inputs, and a live line for the trail.

#include "app/stages/configuration_bar.h"
#include "app/stages/variant_bar.h"
#include "app/view/canvas.h"
#include "app/widgets/ledger.h"

#include <QLabel>
#include <QObject>
#include <QVBoxLayout>
#include <QWidget>

namespace vetchling::app {

/// Title, a sentence that already says the answer, and below them the graphic. The title's row has one height and holds, from the left: the
/// title, what is looked at (options), and the views. Where it is too narrow for all, the options stand beside the sentence,
/// and where it is narrower still, the views in a row of their own.
class StagePage : public QWidget {
    Q_OBJECT
public:
    explicit StagePage(QWidget* parent = nullptr);
    void setTitle(const QString& words);
    void setSentence(const QString& words);
    /// In red below the head on every page of an antenna that endangers somebody or is tied to nothing; empty: nothing.
    void setAlarm(const QString& words);
    [[nodiscard]] QString alarm() const { return m_alarm->text(); }
    [[nodiscard]] QString title() const { return m_name; }
    [[nodiscard]] QString sentence() const { return m_sentence->text(); }
    [[nodiscard]] QWidget* sentenceLabel() { return m_sentence; }
    void addOption(QWidget* option);
    /// One of a row of buttons that touch.
    void addView(QWidget* button);
    [[nodiscard]] QVBoxLayout* body() { return m_body; }

    static constexpr int rowHeight = 26; ///< px of everything beside the title

protected:
    void resizeEvent(QResizeEvent* event) override;
    bool event(QEvent* event) override;

private:
    void arrange();

    QString m_name;
    QLabel *m_title, *m_sentence, *m_alarm;
    QWidget *m_options, *m_views;
    QHBoxLayout *m_header, *m_viewsRow, *m_below;
    QVBoxLayout* m_body;
};

class Stage : public QObject {
    Q_OBJECT
public:
    Stage(ViewContext& context, QObject* parent);

    [[nodiscard]] virtual QString id() const = 0;
    [[nodiscard]] virtual QString name() const = 0;
    /// One line of result for the trail.
    [[nodiscard]] virtual QString summary() const = 0;
    /// What a picture export takes.
    [[nodiscard]] virtual Canvas* canvas() = 0;
    [[nodiscard]] StagePage* page() { return m_page; }
    [[nodiscard]] Ledger* ledger() { return m_ledger; }
    /// Text of the stage as a table for copying; empty if there is none.
    [[nodiscard]] virtual QString tableText() const { return {}; }
    /// Turns to one of its views, by the id of that view; nothing for what is none.
    virtual void showView(const QString& /*view*/) {}
    /// A number beside its leaf; 0: none.
    [[nodiscard]] virtual int number() const { return 0; }
    /// In two or three words what stands in red in its place on the trail; empty: nothing.
    [[nodiscard]] virtual QString alarm() const { return {}; }
    /// What stands in red on its page, whichever stage it is.
    void refreshAlarm();
    /// Starts renaming what is chosen on the page; false if nothing of its own is.
    virtual bool rename() { return false; }
    /// Brings page and ledger up to date; called for the stage on show when anything has changed.
    virtual void refresh() = 0;

signals:
    /// Something of its own has come that changes its line on the trail.
    void summaryChanged();
    /// A new wire for a tuner, and its length found.
    void tunerWireWanted();
    /// Another page: a stage and one of its views, by their ids.
    void pageWanted(const QString& stage, const QString& view);

protected:
    [[nodiscard]] Document& document() const { return m_context.document; }
    [[nodiscard]] SolveService& solver() const { return m_context.solver; }
    [[nodiscard]] units::System system() const { return m_context.system(); }
    /// First fault as a sentence for the page.
    [[nodiscard]] QString faultSentence() const;
    /// Puts the choices of variant and links beside the title; `refreshConfigurations` keeps them up to date.
    void addConfigurations();
    void refreshConfigurations(bool shown = true);
    /// The page's sentence is pale while the solver's figures are old, and so are these.
    void tellsFigures(std::initializer_list<QWidget*> graphics);

    ViewContext& m_context;
    StagePage* m_page;
    Ledger* m_ledger;

private:
    ConfigurationBar* m_configurations = nullptr;
    VariantBar* m_variant = nullptr;
};

std::unique_ptr<Stage> makeSiteStage(ViewContext& context, QObject* parent);
std::unique_ptr<Stage> makeShapeStage(ViewContext& context, QObject* parent);
std::unique_ptr<Stage> makeBandsStage(ViewContext& context, QObject* parent);
std::unique_ptr<Stage> makeSkyStage(ViewContext& context, QObject* parent);
std::unique_ptr<Stage> makeFeedStage(ViewContext& context, QObject* parent);
std::unique_ptr<Stage> makeBuildStage(ViewContext& context, QObject* parent);
std::unique_ptr<Stage> makeTrimStage(ViewContext& context, QObject* parent);
std::unique_ptr<Stage> makeLeftStage(ViewContext& context, QObject* parent);

} // namespace vetchling::app
