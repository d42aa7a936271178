<?php

declare(strict_types=1);

namespace Tests\Mutation;

use PhpParser\NodeTraverser;
use PhpParser\ParserFactory;
use PhpParser\PrettyPrinter\Standard;

/** The source of a class with one break in it. */
final readonly class Mutant
{
    private function __construct(public int $line, public string $mutation, public string $was, public string $code) {}

    /** @return list<self> in the order of the source */
    public static function all(string $source): array
    {
        $parser = (new ParserFactory)->createForNewestSupportedVersion();
        $mutants = [];
        for ($nth = 0; ; $nth++) {
            // Parsed anew each time, so that a break leaves no trace in the next one.
            $breaking = new Breaking($nth);
            $broken = (new NodeTraverser($breaking))->traverse($parser->parse($source) ?? []);
            if ($breaking->line === null) {
                return $mutants;
            }
            $mutants[] = new self($breaking->line, $breaking->mutation, $breaking->was, (new Standard)->prettyPrintFile($broken));
        }
    }
}
