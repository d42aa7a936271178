<?php

declare(strict_types=1);

namespace NineTally\Core\Cause;

use NineTally\Core\Value\Reading;

/**
 * One writing for all values of a column that are the same once some causes of form are taken away. Every blank token equals the empty
 * cell.
 */
final readonly class CanonicalForm
{
    /** Leads a value that was read, so that no text can be taken for it: no text holds a zero byte. */
    private const READ = "\0";

    /** @var list<TextForm> in the order of application */
    private array $forms;

    /** @param list<string> $forgives causes of form */
    public function __construct(private Reading $reading, private array $forgives, FormCombination $forms)
    {
        $this->forms = $forms->applied($forgives);
    }

    public function of(string $cell): string
    {
        if ($this->reading->isBlank($cell)) {
            return '';
        }
        foreach ($this->forms as $form) {
            $cell = $form->canonical($cell);
        }
        $read = (in_array('number-form', $this->forgives, true) ? $this->reading->number($cell)?->canonical() : null)
            ?? (in_array('date-form', $this->forgives, true) ? $this->reading->moment($cell)?->canonical() : null)
            ?? (in_array('yes-no-form', $this->forgives, true) ? match ($this->reading->yesOrNo($cell)) {
                true => 'yes', false => 'no', null => null
            } : null);

        return $read === null ? $cell : self::READ.$read;
    }
}
