<?php

declare(strict_types=1);

namespace NineTally\Core\Preparation\Formula;

use NineTally\Core\Preparation\ColumnIndex;
use NineTally\Core\Preparation\RowCursor;
use NineTally\Core\Preparation\StepContext;
use NineTally\Core\Preparation\UnusableStep;
use NineTally\Core\Value\PlainNumber;
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

    /**
     * @param  \Closure(RowCursor): (string|bool|PlainNumber)  $evaluate
     * @param  list<int>  $places
     */
    private function __construct(private \Closure $evaluate, private array $places, private Effort $effort) {}

    /**
     * @param  list<string>  $names  of the columns
     *
     * @throws UnusableStep with what is wrong, when it cannot be read
     */
    public static function of(
        string $written,
        ColumnIndex $columns,
        array $names,
        ?StepContext $context = null,
        Effort $effort = new Effort,
    ): self {
        if (strlen($written) > self::LONGEST) {
            throw UnusableStep::because(sprintf('The formula is longer than %s characters.', number_format(self::LONGEST)));
        }
        $words = array_values(array_filter($names, static fn(string $name): bool => preg_match('/^[A-Za-z_]\w*$/D', $name) === 1));
        try {
            $parser = new Parser(array_fill_keys(array_keys(Functions::LISTED), []));
            $node = $parser->parse((new Lexer)->tokenize(self::withNumbersAsTexts($written)), $words);
        } catch (SyntaxError $wrong) {
            throw UnusableStep::because(
                'The formula cannot be read: '.
                    rtrim(preg_replace('/ around position (\d+) for expression `.*`/s', '', $wrong->getMessage()) ?? '', '.').
                    '.',
            );
        }
        $places = [];
        $evaluate = self::compile($node, $columns, $places, 0, $context, $effort);

        return new self($evaluate, array_keys($places), $effort);
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
     * @throws UnusableStep when the rows so far took more than a run allows
     */
    public function value(array $cells): string
    {
        return $this->valueOf(new RowCursor($cells));
    }

    /**
     * @throws FormulaError
     * @throws UnusableStep when the rows so far took more than a run allows
     */
    public function valueOf(RowCursor $row): string
    {
        $this->effort->beginRow();
        $value = ($this->evaluate)($row);

        return is_string($value) ? $value : Operators::text($value);
    }

    /** The lexer would make floats of decimals; as texts they keep every digit. */
    private static function withNumbersAsTexts(string $written): string
    {
        return preg_replace_callback(
            '/"(?:[^"\\\\]|\\\\.)*"|\'(?:[^\'\\\\]|\\\\.)*\'|(?<![\w.])\d+(?:\.\d+)?(?!\w)/s',
            static fn(array $found): string => ctype_digit($found[0][0]) ? "'{$found[0]}'" : $found[0],
            $written,
        ) ?? $written;
    }

    /**
     * @param  array<int, true>  $places
     * @return \Closure(RowCursor): (string|bool|PlainNumber)
     */
    private static function compile(
        Node $node,
        ColumnIndex $columns,
        array &$places,
        int $depth,
        ?StepContext $context,
        Effort $effort,
        Wanted $wanted = Wanted::Value,
    ): \Closure {
        if ($depth > self::DEEPEST) {
            throw UnusableStep::because('The formula is nested too deeply.');
        }
        $inner = static function (mixed $part, Wanted $wanted) use ($columns, &$places, $depth, $context, $effort): \Closure {
            return self::compile(self::node($part), $columns, $places, $depth + 1, $context, $effort, $wanted);
        };
        /** @var array<string, mixed> $parts */
        $parts = $node->nodes;
        $name = self::attribute($node, 'name');
        $operator = self::attribute($node, 'operator');

        return match (true) {
            $node instanceof NameNode => self::cell($columns->at($name), $places, CellValue::of($name, $wanted, $context)),
            $node instanceof ConstantNode => self::constant($node->attributes['value'] ?? null),
            $node instanceof FunctionNode && $name === 'column' => self::cell(
                $columns->at(self::columnName($node)),
                $places,
                CellValue::of(self::columnName($node), $wanted, $context),
            ),
            $node instanceof FunctionNode => self::callOf(
                $name,
                array_map(
                    static fn(Node $argument): \Closure => $inner($argument, Functions::wants($name) ?? $wanted),
                    self::arguments($node),
                ),
                $effort,
            ),
            $node instanceof ConditionalNode => Operators::choice(
                $inner($parts['expr1'], Wanted::Value),
                $inner($parts['expr2'], $wanted),
                $inner($parts['expr3'], $wanted),
            ),
            $node instanceof UnaryNode => Operators::unary(
                $operator,
                $inner($parts['node'], $operator === '-' || $operator === '+' ? Wanted::Number : Wanted::Value),
            ),
            $node instanceof BinaryNode && in_array($operator, Operators::BETWEEN_TWO, true) => Operators::binary(
                $operator,
                $inner($parts['left'], Operators::wants($operator)),
                $inner($parts['right'], Operators::wants($operator)),
                $effort,
            ),
            default => throw UnusableStep::because(
                'The formula uses what formulas here do not have: only cells, texts, numbers, + - * / ~, comparisons, and, or, not, a ? '.
                    'b : c, and the listed functions.',
            ),
        };
    }

    private static function node(mixed $part): Node
    {
        return $part instanceof Node ? $part : throw new \LogicException('The parser made something else.');
    }

    private static function attribute(Node $node, string $name): string
    {
        $value = $node->attributes[$name] ?? '';

        return is_string($value) ? $value : '';
    }

    /** @return list<Node> */
    private static function arguments(FunctionNode $node): array
    {
        return array_map(self::node(...), array_values(self::node($node->nodes['arguments'] ?? null)->nodes));
    }

    /**
     * @param  array<int, true>  $places
     * @return \Closure(RowCursor): string
     */
    private static function cell(int $place, array &$places, ?CellValue $value): \Closure
    {
        $places[$place] = true;

        return $value === null
            ? static fn(RowCursor $row): string => $row->cells[$place]
            : static fn(RowCursor $row): string => $value->read($row->cells[$place]);
    }

    private static function columnName(FunctionNode $node): string
    {
        $argument = self::arguments($node)[0] ?? null;

        return $argument instanceof ConstantNode && self::attribute($argument, 'value') !== ''
            ? self::attribute($argument, 'value')
            : throw UnusableStep::because('column() takes the name of a column between quotes.');
    }

    /** @return \Closure(RowCursor): (string|bool|PlainNumber) */
    private static function constant(mixed $value): \Closure
    {
        $constant = match (true) {
            is_bool($value), is_string($value) => $value,
            $value === null => '',
            default => throw UnusableStep::because('The formula has a list, and formulas here have none.'),
        };

        $plain = is_string($constant) ? PlainNumber::of($constant) : null;
        // A number that is written as it would be written again need not be read for each row.
        $ready = $plain !== null && $plain->written(false) === $constant ? $plain : $constant;

        return static fn(RowCursor $row): string|bool|PlainNumber => $ready;
    }

    /**
     * @param  list<\Closure(RowCursor): (string|bool|PlainNumber)>  $arguments
     * @return \Closure(RowCursor): (string|bool|PlainNumber)
     */
    private static function callOf(string $name, array $arguments, Effort $effort): \Closure
    {
        if ($name === 'round' && (count($arguments) === 1 || count($arguments) === 2)) {
            return Functions::round($arguments[0], $arguments[1] ?? self::constant('0'), $effort);
        }

        return static function (RowCursor $row) use ($name, $arguments, $effort): string|bool {
            $texts = [];
            $bytes = 0;
            foreach ($arguments as $argument) {
                $texts[] = $text = Operators::text($argument($row));
                $bytes += strlen($text);
            }
            $effort->spend($bytes);

            return Functions::call($name, $texts);
        };
    }
}
