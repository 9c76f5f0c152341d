#pragma once
/// Colours, fonts and icons, in two themes. Widgets hold a pointer and repaint on changed().

#include <QCache>
#include <QColor>
#include <QFont>
#include <QIcon>
#include <QObject>
#include <QPen>
#include <QSizeF>
#include <QStaticText>

class QApplication;

namespace vetchling::app {

struct Colours {
    QColor paper, panel, fill, hairline, ink, inkSoft, inkFaint;
    QColor leaf, leafMid, leafPale, petal, petalPale, sky, skyPale, brick, card;
};

/// Words shaped once and drawn many times.
struct Typeset {
    QFont font; ///< to be set on the painter before the text is drawn
    QStaticText text;
    QSizeF size;
    double ascent = 0.0;
};

class Theme : public QObject {
    Q_OBJECT
public:
    enum class Mode { Day, Night, Paper }; ///< Paper: the day's inks on white, each letter a letter in a PDF

    explicit Theme(QObject* parent = nullptr);

    [[nodiscard]] Mode mode() const { return m_mode; }
    void setMode(Mode mode);
    [[nodiscard]] const Colours& colours() const { return m_colours; }

    /// 13 px text unless another size is asked for.
    [[nodiscard]] QFont font(int pixels = 13, bool bold = false) const;
    /// One line of words; kept, because shaping takes longer than drawing.
    [[nodiscard]] Typeset typeset(const QString& words, int pixels = 13, bool bold = false) const;
    /// The words, cut short with an ellipsis where they are wider.
    [[nodiscard]] static QColor withAlpha(QColor colour, int alpha)
    {
        colour.setAlpha(alpha);
        return colour;
    }
    [[nodiscard]] QString elided(const QString& words, double width, int pixels = 13, bool bold = false) const;
    /// A line icon of the application in the ink colour.
    [[nodiscard]] QIcon icon(const QString& name) const;
    /// Loads the shipped fonts and sets palette, font and style sheet.
    void apply(QApplication& application) const;
    /// Of that all but the style sheet: under one, each widget that is put into another is styled anew with all that is in it.
    void applyFontAndPalette(QApplication& application) const;

signals:
    void changed();

private:
    [[nodiscard]] QString styleSheet() const;
    Mode m_mode = Mode::Day;
    Colours m_colours;
    mutable QCache<QString, Typeset> m_typeset{1000};
};

/// The line of a variant, by its row in the table: a colour and dashes of its own, so that it can be told without colour too.
QPen variantPen(std::size_t row, const Colours& colours, double width);

} // namespace vetchling::app
