#pragma once
/// An input for a name: taken on Enter or when it is left; an empty one brings the old name back.

#include <QLineEdit>

namespace vetchling::app {

class NameEdit : public QLineEdit {
    Q_OBJECT
public:
    explicit NameEdit(QWidget* parent = nullptr);
    /// Shows a name, unless the user is typing.
    void setName(const QString& name);
    /// Takes what is typed.
    void confirm();
    void revert();

signals:
    void named(const QString& name);
    void abandoned(); ///< by Escape

protected:
    void keyPressEvent(QKeyEvent*) override;

private:
    QString m_name;
};

} // namespace vetchling::app
