<?php

declare(strict_types=1);

namespace Tests\Mutation;

use PhpParser\Node;
use PhpParser\NodeVisitor;
use PhpParser\NodeVisitorAbstract;
use PhpParser\PrettyPrinter\Standard;

/** Breaks the nth place that can be broken, and says which that was. */
final class Breaking extends NodeVisitorAbstract
{
    /** Null while there was no such place. */
    public ?int $line = null;

    public string $mutation = '';

    public string $was = '';

    private int $seen = 0;

    public function __construct(private readonly int $nth) {}

    public function leaveNode(Node $node): int|Node|null
    {
        foreach (Mutations::of($node) as [$mutation, $instead]) {
            if ($this->seen++ === $this->nth) {
                [$this->line, $this->mutation, $this->was] = [
                    $node->getStartLine(),
                    $mutation,
                    (string) strtok((new Standard)->prettyPrint([$node]), "\n"),
                ];

                return $instead ?? NodeVisitor::REMOVE_NODE;
            }
        }

        return null;
    }
}
