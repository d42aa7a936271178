<?php

declare(strict_types=1);

namespace NineTally\Core\Preparation\Steps;

use NineTally\Core\Preparation\CellByCell;
use NineTally\Core\Preparation\SafePattern;
use NineTally\Core\Preparation\StepContext;

/** Tidies the text of some columns, by actions that follow on each other. */
final class TidyText extends CellByCell
{
    private const SPACES = '[\p{Z}\t\x{0B}\f]';

    /**
     * @param  list<string>  $chosen
     * @param  list<array{action: string, find?: string, with?: string, length?: int}>  $actions
     */
    public function __construct(array $chosen, private readonly array $actions)
    {
        parent::__construct($chosen);
    }

    public function sentence(): string
    {
        return 'Tidy '.Words::listed($this->chosen).': '.implode(', ', array_map($this->words(...), $this->actions));
    }

    protected function alteration(string $column, StepContext $context): \Closure
    {
        $actions = array_map($this->action(...), $this->actions);
        if (count($actions) === 1) {
            return $actions[0];
        }

        return static function (string $cell) use ($actions): string {
            foreach ($actions as $action) {
                $cell = $action($cell);
            }

            return $cell;
        };
    }

    /**
     * @param  array{action: string, find?: string, with?: string, length?: int}  $action
     * @return \Closure(string): string
     */
    private function action(array $action): \Closure
    {
        [$find, $with, $length] = [$action['find'] ?? '', $action['with'] ?? '', $action['length'] ?? 0];

        return match ($action['action']) {
            'trim' => static fn(string $cell): string => preg_replace('/^'.self::SPACES.'+|'.self::SPACES.'+$/uD', '', $cell) ?? $cell,
            'squeeze' => static fn(string $cell): string => preg_replace('/'.self::SPACES.'+/u', ' ', $cell) ?? $cell,
            'remove-invisible' => static fn(string $cell): string => preg_replace('/[^\P{C}\n\r\t]/u', '', $cell) ?? $cell,
            'upper' => static fn(string $cell): string => mb_strtoupper($cell),
            'lower' => static fn(string $cell): string => mb_strtolower($cell),
            'compose' => static fn(string $cell): string => self::normalized($cell, \Normalizer::FORM_C),
            'compatible' => static fn(string $cell): string => self::normalized($cell, \Normalizer::FORM_KC),
            'replace' => static fn(string $cell): string => $find === '' ? $cell : str_replace($find, $with, $cell),
            'replace-pattern' => $this->byPattern($find, $with),
            'pad-zeros' => static fn(string $cell): string => $cell === '' ? '' : str_pad($cell, $length, '0', STR_PAD_LEFT),
            'strip-zeros' => static fn(string $cell): string => preg_replace('/^0+(?=.)/s', '', $cell) ?? $cell,
            default => throw new \LogicException("The schema knows no action {$action['action']}."),
        };
    }

    private static function normalized(string $cell, int $form): string
    {
        $normalized = preg_match('/[\x80-\xFF]/', $cell) === 1 ? \Normalizer::normalize($cell, $form) : $cell;

        return is_string($normalized) ? $normalized : $cell;
    }

    /** @return \Closure(string): string */
    private function byPattern(string $find, string $with): \Closure
    {
        $pattern = SafePattern::of($find);

        return static fn(string $cell): string => $pattern->replace($cell, $with);
    }

    /** @param array{action: string, find?: string, with?: string, length?: int} $action */
    private function words(array $action): string
    {
        [$find, $with] = [$action['find'] ?? '', $action['with'] ?? ''];

        return match ($action['action']) {
            'squeeze' => 'one space for many',
            'remove-invisible' => 'remove invisible characters',
            'upper' => 'in capitals',
            'lower' => 'in small letters',
            'compose' => 'Unicode composed (NFC)',
            'compatible' => 'Unicode compatible (NFKC)',
            'replace' => sprintf('"%s" becomes "%s"', $find, $with),
            'replace-pattern' => sprintf('the pattern %s becomes "%s"', $find, $with),
            'pad-zeros' => sprintf('zeros before it to %d characters', $action['length'] ?? 0),
            'strip-zeros' => 'strip leading zeros',
            default => $action['action'],
        };
    }
}
