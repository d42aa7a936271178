<?php

declare(strict_types=1);

namespace Tests\Mutation;

use PhpParser\Node;
use PhpParser\Node\Expr;
use PhpParser\Node\Scalar\Int_;
use PhpParser\Node\Stmt;

/** Small breaks of code, each of which some test should notice. */
final readonly class Mutations
{
    private const SWAPPED = [
        // Borders.
        Expr\BinaryOp\Smaller::class => Expr\BinaryOp\SmallerOrEqual::class,
        Expr\BinaryOp\SmallerOrEqual::class => Expr\BinaryOp\Smaller::class,
        Expr\BinaryOp\Greater::class => Expr\BinaryOp\GreaterOrEqual::class,
        Expr\BinaryOp\GreaterOrEqual::class => Expr\BinaryOp\Greater::class,
        // Comparisons.
        Expr\BinaryOp\Identical::class => Expr\BinaryOp\NotIdentical::class,
        Expr\BinaryOp\NotIdentical::class => Expr\BinaryOp\Identical::class,
        // Arithmetic.
        Expr\BinaryOp\Plus::class => Expr\BinaryOp\Minus::class,
        Expr\BinaryOp\Minus::class => Expr\BinaryOp\Plus::class,
        Expr\BinaryOp\Mul::class => Expr\BinaryOp\Plus::class,
        Expr\AssignOp\Plus::class => Expr\AssignOp\Minus::class,
        Expr\AssignOp\Minus::class => Expr\AssignOp\Plus::class,
        // Logic.
        Expr\BinaryOp\BooleanAnd::class => Expr\BinaryOp\BooleanOr::class,
        Expr\BinaryOp\BooleanOr::class => Expr\BinaryOp\BooleanAnd::class,
    ];

    /** @return list<array{string, Node|null}> name of the break, and what stands there instead; null: the statement is left out */
    public static function of(Node $node): array
    {
        return match (true) {
            $node instanceof Expr\BinaryOp && isset(self::SWAPPED[$node::class]) => [
                ['operator', new (self::SWAPPED[$node::class])($node->left, $node->right)],
            ],
            $node instanceof Expr\AssignOp && isset(self::SWAPPED[$node::class]) => [
                ['operator', new (self::SWAPPED[$node::class])($node->var, $node->expr)],
            ],
            $node instanceof Expr\BinaryOp\Coalesce => [['fallback', $node->right]],
            $node instanceof Expr\BooleanNot => [['negation', $node->expr]],
            $node instanceof Stmt\If_ => [['condition', self::with($node, 'cond', new Expr\BooleanNot($node->cond))]],
            $node instanceof Expr\Ternary && $node->if !== null => [['choice', new Expr\Ternary($node->cond, $node->else, $node->if)]],
            $node instanceof Expr\ConstFetch && in_array($node->name->toLowerString(), ['true', 'false'], true) => [
                ['truth', new Expr\ConstFetch(new Node\Name($node->name->toLowerString() === 'true' ? 'false' : 'true'))],
            ],
            $node instanceof Int_ => [['number', new Int_($node->value + 1)]],
            $node instanceof Expr\PostInc => [['count', new Expr\PostDec($node->var)]],
            $node instanceof Expr\PreInc => [['count', new Expr\PreDec($node->var)]],
            // A guard is most often a call whose answer nobody looks at.
            $node instanceof Stmt\Expression &&
                ($node->expr instanceof Expr\MethodCall || $node->expr instanceof Expr\StaticCall || $node->expr instanceof Expr\FuncCall)
                => [['call', null]],
            default => [],
        };
    }

    private static function with(Node $node, string $part, Node $new): Node
    {
        $changed = clone $node;
        $changed->{$part} = $new;

        return $changed;
    }
}
