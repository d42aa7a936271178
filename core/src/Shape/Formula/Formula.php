<?php

declare(strict_types=1);

namespace NineTally\Core\Shape\Formula;

use Brick\Math\BigDecimal;
use Brick\Math\Exception\MathException;
use Brick\Math\RoundingMode;
use NineTally\Core\Shape\ColumnPlaces;
use NineTally\Core\Shape\UnusableStep;
use Symfony\Component\ExpressionLanguage\Lexer;
use Symfony\Component\ExpressionLanguage\Node\BinaryNode;
use Symfony\Component\ExpressionLanguage\Node\ConditionalNode;
use Symfony\Component\ExpressionLanguage\Node\ConstantNode;
use Symfony\Component\ExpressionLanguage\Node\FunctionNode;
use Symfony\Component\ExpressionLanguage\Node\NameNode;
use Symfony\Component\ExpressionLanguage\Node\Node;
use Symfony\Component\ExpressionLanguage\Node\UnaryNode;
use Symfony\Component\ExpressionLanguage\Parser;
use Symfony\Component\ExpressionLanguage\SyntaxError;

/**
 * A formula over the cells of a row: + - * / on exact decimals, ~ to join texts, comparisons, and, or, not, c ? a : b, and
 * the listed functions. It has no loops and reaches nothing but its row.
 *
 * The expression language's parser reads it; it is evaluated here, for the language itself would count in floats.
 */
final readonly class Formula
{
    private const LONGEST = 2_000;

    private const DEEPEST = 50;

    /** Places to which a quotient without end is carried. */
    private const PLACES = 20;

    private const OPERATORS = ['+', '-', '*', '/', '~', '==', '!=', '<', '<=', '>', '>=', 'and', '&&', 'or', '||', 'contains', 'starts with', 'ends with'];

    /** @param \Closure(list<string>): (string|bool) $evaluate */
    private function __construct(private \Closure $evaluate, private array $places) {}

    /** @throws UnusableStep with what is wrong and where, when it cannot be read */
    public static function of(string $written, ColumnPlaces $columns, array $names): self
    {
        if (strlen($written) > self::LONGEST) {
            throw UnusableStep::because(sprintf('The formula is longer than %s characters.', number_format(self::LONGEST)));
        }
        $words = array_values(array_filter($names, static fn(string $name): bool => preg_match('/^[A-Za-z_]\w*$/D', $name) === 1));
        try {
            $parser = new Parser(array_fill_keys(array_keys(Functions::LISTED), []));
            $node = $parser->parse((new Lexer)->tokenize(self::withNumbersAsTexts($written)), $words);
        } catch (SyntaxError $wrong) {
            throw UnusableStep::because('The formula cannot be read: '.rtrim(preg_replace('/ around position (\d+) for expression `.*`/s', '', $wrong->getMessage()) ?? '', '.').'.');
        }
        $places = [];
        $evaluate = self::compile($node, $columns, $places, 0);

        return new self($evaluate, array_keys($places));
    }

    /** @return list<int> places of the cells that it looks at */
    public function places(): array
    {
        return $this->places;
    }

    /**
     * @param  list<string>  $cells
     *
     * @throws FormulaError
     */
    public function value(array $cells): string
    {
        $value = ($this->evaluate)($cells);

        return is_bool($value) ? ($value ? 'yes' : 'no') : $value;
    }

    /** The lexer would make floats of decimals; as texts they keep every digit. */
    private static function withNumbersAsTexts(string $written): string
    {
        return preg_replace_callback('/"(?:[^"\\\\]|\\\\.)*"|\'(?:[^\'\\\\]|\\\\.)*\'|(?<![\w.])\d+(?:\.\d+)?(?!\w)/s', static fn(array $found): string => ctype_digit($found[0][0]) ? "'{$found[0]}'" : $found[0], $written) ?? $written;
    }

    /**
     * @param  array<int, true>  $places
     * @return \Closure(list<string>): (string|bool)
     */
    private static function compile(Node $node, ColumnPlaces $columns, array &$places, int $depth): \Closure
    {
        if ($depth > self::DEEPEST) {
            throw UnusableStep::because('The formula is nested too deeply.');
        }
        $inner = static function (Node $part) use ($columns, &$places, $depth): \Closure {
            return self::compile($part, $columns, $places, $depth + 1);
        };
        $parts = $node->nodes;

        return match (true) {
            $node instanceof NameNode => self::cell($columns->at($node->attributes['name']), $places),
            $node instanceof ConstantNode => self::constant($node->attributes['value']),
            $node instanceof FunctionNode && $node->attributes['name'] === 'column' => self::cell($columns->at(self::columnName($node)), $places),
            $node instanceof FunctionNode => self::callOf($node->attributes['name'], array_map($inner, array_values($parts['arguments']->nodes))),
            $node instanceof ConditionalNode => self::choice($inner($parts['expr1']), $inner($parts['expr2']), $inner($parts['expr3'])),
            $node instanceof UnaryNode => self::unary($node->attributes['operator'], $inner($parts['node'])),
            $node instanceof BinaryNode && in_array($node->attributes['operator'], self::OPERATORS, true) => self::binary($node->attributes['operator'], $inner($parts['left']), $inner($parts['right'])),
            default => throw UnusableStep::because('The formula uses what formulas here do not have: only cells, texts, numbers, + - * / ~, comparisons, and, or, not, a ? b : c, and the listed functions.'),
        };
    }

    private static function cell(int $place, array &$places): \Closure
    {
        $places[$place] = true;

        return static fn(array $cells): string => $cells[$place];
    }

    private static function columnName(FunctionNode $node): string
    {
        $argument = array_values($node->nodes['arguments']->nodes)[0] ?? null;

        return $argument instanceof ConstantNode && is_string($argument->attributes['value']) ? $argument->attributes['value'] : throw UnusableStep::because('column() takes the name of a column between quotes.');
    }

    private static function constant(mixed $value): \Closure
    {
        $constant = match (true) {
            is_bool($value), is_string($value) => $value,
            $value === null => '',
            default => throw UnusableStep::because('The formula has a list, and formulas here have none.'),
        };

        return static fn(array $cells): string|bool => $constant;
    }

    /** @param list<\Closure> $arguments */
    private static function callOf(string $name, array $arguments): \Closure
    {
        return static fn(array $cells): string|bool => Functions::call($name, array_map(static fn(\Closure $argument): string => self::text($argument($cells)), $arguments));
    }

    private static function choice(\Closure $condition, \Closure $yes, \Closure $no): \Closure
    {
        return static fn(array $cells): string|bool => self::truth($condition($cells)) ? $yes($cells) : $no($cells);
    }

    private static function unary(string $operator, \Closure $value): \Closure
    {
        return match ($operator) {
            '-' => static fn(array $cells): string => Functions::written(Functions::number(self::text($value($cells)))->negated()),
            '+' => static fn(array $cells): string => Functions::written(Functions::number(self::text($value($cells)))),
            'not', '!' => static fn(array $cells): bool => ! self::truth($value($cells)),
            default => throw UnusableStep::because("The formula has an operator that formulas here do not have: {$operator}."),
        };
    }

    private static function binary(string $operator, \Closure $left, \Closure $right): \Closure
    {
        return match ($operator) {
            '+', '-', '*', '/' => static fn(array $cells): string => self::arithmetic($operator, self::text($left($cells)), self::text($right($cells))),
            '~' => static fn(array $cells): string => Functions::bounded(self::text($left($cells)).self::text($right($cells))),
            'and', '&&' => static fn(array $cells): bool => self::truth($left($cells)) && self::truth($right($cells)),
            'or', '||' => static fn(array $cells): bool => self::truth($left($cells)) || self::truth($right($cells)),
            'contains' => static fn(array $cells): bool => str_contains(self::text($left($cells)), self::text($right($cells))),
            'starts with' => static fn(array $cells): bool => str_starts_with(self::text($left($cells)), self::text($right($cells))),
            'ends with' => static fn(array $cells): bool => str_ends_with(self::text($left($cells)), self::text($right($cells))),
            default => static fn(array $cells): bool => self::compared($operator, self::text($left($cells)), self::text($right($cells))),
        };
    }

    private static function arithmetic(string $operator, string $left, string $right): string
    {
        [$left, $right] = [Functions::number($left), Functions::number($right)];
        try {
            return Functions::written(match ($operator) {
                '+' => $left->plus($right),
                '-' => $left->minus($right),
                '*' => $left->multipliedBy($right),
                default => self::quotient($left, $right),
            });
        } catch (MathException) {
            throw FormulaError::because('divided by zero');
        }
    }

    private static function quotient(BigDecimal $left, BigDecimal $right): BigDecimal
    {
        return $left->dividedBy($right, max(self::PLACES, $left->getScale()), RoundingMode::HALF_EVEN);
    }

    /** Two numbers by their size, else two texts by their bytes. */
    private static function compared(string $operator, string $left, string $right): bool
    {
        [$one, $other] = [Functions::numberOrNull($left), Functions::numberOrNull($right)];
        $order = $one !== null && $other !== null ? $one->compareTo($other) : strcmp($left, $right);

        return match ($operator) {
            '==' => $order === 0,
            '!=' => $order !== 0,
            '<' => $order < 0,
            '<=' => $order <= 0,
            '>' => $order > 0,
            default => $order >= 0,
        };
    }

    private static function text(string|bool $value): string
    {
        return is_bool($value) ? ($value ? 'yes' : 'no') : $value;
    }

    private static function truth(string|bool $value): bool
    {
        return is_bool($value) ? $value : throw FormulaError::because('yes or no is needed, and a value stands there');
    }
}
