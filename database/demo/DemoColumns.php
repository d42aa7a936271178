<?php

declare(strict_types=1);

namespace Database\Demo;

/** The columns of both sides of a dataset. */
final readonly class DemoColumns
{
    /**
     * @param  list<string>  $key  source names
     * @param  array<string, string>  $names  source name => target name; '' where the target has none
     * @param  list<string>  $targetOnly
     */
    public function __construct(public array $key, public array $names, public array $targetOnly = []) {}

    /** @return array<string, string> columns of the target, by the name under which their cells are found in a row as it was made */
    public function ofTarget(): array
    {
        return array_filter($this->names, static fn(string $name): bool => $name !== '') +
            array_combine($this->targetOnly, $this->targetOnly);
    }
}
