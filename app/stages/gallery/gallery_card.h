#pragma once
/// One proposal of the gallery as a card: its drawing, name, length, and a square for each wanted band.

#include "app/document/gallery_desk.h"
#include "app/view/context.h"

#include <QAbstractButton>

namespace vetchling::app {

class GalleryCard : public QAbstractButton {
    Q_OBJECT
public:
    static constexpr QSize cardSize{160, 166};

    GalleryCard(ViewContext& context, std::string proposal, QWidget* parent = nullptr);
    [[nodiscard]] const std::string& proposal() const { return m_proposal; }
    /// Takes what is known of the proposal. @param scale px a metre, one for the whole gallery
    void show(const GalleryDesk::Entry& entry, double scale);
    /// Everything that a search may find, in lower case.
    [[nodiscard]] QString searchText() const { return m_search; }

signals:
    void focused();
    void stepped(int key); ///< an arrow
    void typed(const QString& text);

protected:
    bool event(QEvent* event) override;
    void paintEvent(QPaintEvent*) override;
    void focusInEvent(QFocusEvent* event) override;
    void keyPressEvent(QKeyEvent* event) override;

private:
    void drawAntenna(class Sketch& sketch, const QRectF& area) const;
    void drawSquares(class Sketch& sketch, const QRectF& line) const;
    [[nodiscard]] QStringList linesOf(const QString& words, double width, int most, bool bold) const;
    void describe(const GalleryDesk::Entry& entry);

    ViewContext& m_context;
    std::string m_proposal;
    QString m_title, m_figure, m_beside, m_reason, m_search;
    std::shared_ptr<const shapes::BuiltAntenna> m_built;
    std::vector<Vec3> m_supportTops, m_poleTops; ///< there already; to be put up
    double m_scale = 5.0;
    std::vector<Service> m_squares; ///< of the wanted bands; empty before they are known
    std::size_t m_wished = 0;
};

} // namespace vetchling::app
