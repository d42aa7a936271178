<?php

declare(strict_types=1);

namespace NineTally\Docs;

use App\Models\Role;
use App\Policies\Act;
use Database\Demo\Wherrymoor;
use NineTally\Core\Cause\CauseId;
use NineTally\Core\Command\AdviseCommand;
use NineTally\Core\Command\CausesCommand;
use NineTally\Core\Command\PlanCheckCommand;
use NineTally\Core\Command\ProfileCommand;
use NineTally\Core\Command\TallyCommand;
use NineTally\Core\Command\WorkerFailure;
use NineTally\Core\Comparison\ColumnPair;
use NineTally\Core\Figures\UnbalancedTally;
use NineTally\Core\Intake\Delimited\DelimitedReader;
use NineTally\Core\Intake\UnreadableFile;
use NineTally\Core\Matching\Spill\WorkspaceFailure;
use NineTally\Core\NineTallyException;
use NineTally\Core\Plan\KeyColumn;
use NineTally\Core\Plan\Plan;
use NineTally\Core\Plan\Problem;
use NineTally\Core\Plan\UnusablePlan;
use NineTally\Core\Report\UnwritableFolder;
use NineTally\Core\Row\DuplicateColumn;
use NineTally\Core\Row\RefusalReason;
use NineTally\Core\Row\Sides;
use NineTally\Core\Row\UnknownColumn;
use NineTally\Core\Tally\TallyRun;
use NineTally\Core\Tally\Workspace;
use NineTally\Core\Value\UnusableDateForm;
use Symfony\Component\Console\Command\Command;

/** The pages of docs/reference, made from the code that they describe, with examples from the demo. */
final readonly class Reference
{
    public const HEAD = "<!-- Made by bin/docs. Changes here are overwritten. -->\n\n";

    private const CATALOGUE = <<<'TEXT'
        ## Version 3 of the catalogue

        - A crosswalk is asked first, also for blank cells and under the forms that its pair forgives.
        - `accents` is a form of its own: é and e, ł and l, ß and ss. Capitals are compared by simple folding, which never changes the
          number of letters.
        - `offset`: numbers of a whole column that are more or less by one constant. `date-shift` names the time zone also where it is 0 or
          1 hours away; a time that a zone skips or doubles is said as such.
        - `untranslated`: the target still holds the value of the source, where the crosswalk has an entry for it. Codes that abbreviate
          (active, A) are `translated`, and no longer cut.
        - `moved` looks in columns that are not compared too.
        - Patterns of `near-text` are by kind of edit (swapped, added, left out, replaced), with the letters as they were delivered.
        - Nothing is guessed of a form: without a declaration a number is digits with a point before its decimals, a date is ISO 8601.

        TEXT;

    private const FILES = <<<'TEXT'

        ## Files of --out

        UTF-8, comma, RFC 4180 quotes, LF; whole or not at all. Places are the part and the physical line in it.

        - `summary.json`: what `--json` prints: the three ledgers of each side, values right, differing, lost and added, cells by column,
          cause and pattern, what was forgiven in keys and cells, bridges used and idle, rows chosen by hand (`choices`, where there are
          any), keys that repeat on one side only, partly blank keys, steps and references with their figures
        - `differences.csv`, and with `--list-forgiven` `forgiven.csv`: the delivered key, `column`, `class`, `cause`, `source`, `target`,
          `difference` (target less source)
        - `missing.csv`, `extra.csv`: `part`, `line`, `reason`, and whole rows in the order of their delivery
        - `repeated.csv`: `side`, place, the place of the row that was kept instead, whether its policy decided, the rows of its key on each
          side, and the row under the columns of both sides
        - `unkeyed.csv`: `side`, place, the row
        - `left-out.csv`: `side`, place, the step with its sentence, reason and who answers for it, the row
        - `refused.csv`: `side`, place, `reason`, `what is wrong`, `raw`
        - `without-entry.csv`: values that a crosswalk has no entry for, with their cells
        - `forgiven-postings.json`, `forgiven.postings`: where the cells are that rules let pass, by pattern, key columns too; see below
        - `without-record.csv`: dataset, side, what it is (`lost`, `inherited`, `own`, `untold`, `source`: see Prove), rows, the values

        ## Postings of forgiven cells

        `forgiven-postings.json` lists the patterns: for each the column pair or key column, its cause, the number of cells, and the byte at
        which its list begins in `forgiven.postings` and its length. A list names the rows of the source by the physical line on which each
        begins (where steps prepared the side, or it came in several parts, by the number of the prepared row), and is a row of containers:
        the upper bits of the numbers (4 bytes, big-endian), how many there are less one (2 bytes, big-endian), then the lower 16 bits of
        each number (2 bytes, little-endian), ascending. That is two bytes a cell and little more. Who wants the n-th cell, the count or all
        of them reads the heads of that list and nothing else; containers follow the published design of compressed bitmaps with sorted
        arrays (Lemire and others, Software: Practice and Experience 46, 2016).

        TEXT;

    private const ERRORS = [
        UnreadableFile::class,
        DuplicateColumn::class,
        UnknownColumn::class,
        UnusablePlan::class,
        UnusableDateForm::class,
        UnbalancedTally::class,
        UnwritableFolder::class,
        WorkerFailure::class,
        WorkspaceFailure::class,
    ];

    /** @return array<string, string> file name => page */
    public function pages(): array
    {
        return [
            'causes.md' => $this->causes(),
            'plan.md' => (new PlanReference)->page(),
            'command-line.md' => $this->commandLine(),
            'errors.md' => $this->errors(),
            'roles.md' => $this->roles(),
        ];
    }

    private function roles(): string
    {
        $head = implode(' | ', array_map(static fn(Role $role): string => $role->label(), Role::cases()));
        $page =
            self::HEAD.
            "# Roles\n\nWhat somebody may do in a migration follows from one role there. An administrator keeps people, roles and the ".
            "installation; that alone gives no right to see values, to rule or to sign.\n\n| may | {$head} |\n| --- |".
            str_repeat(' --- |', count(Role::cases())).
            "\n";
        foreach (Act::cases() as $act) {
            $page .= "| {$act->sentence()} |";
            foreach (Role::cases() as $role) {
                $page .= $act->isFor($role) ? ' yes |' : ' |';
            }
            $page .= "\n";
        }
        $page .=
            "\nThe last two follow from no role: an administrator administers, and whoever is signed in keeps the own account.\n\n".
            "## Tokens\n\n".
            "A program that carries a token (`Authorization: Bearer …`, made under *Your account*) does in its person's name what ".
            "the token was made for, as far as the person's role allows it, until the token's last day. It sees sensitive values ".
            "masked, always, and ".
            "needs no CSRF token, for it has no session. Scopes:\n\n";
        foreach (Act::ofTokens() as $act) {
            $page .= "- `{$act->value}`: {$act->sentence()}\n";
        }

        return $page;
    }

    private function causes(): string
    {
        $page =
            self::HEAD.
            "# Causes\n\nWhy two values differ, in the order in which causes are tried. Blankness comes first. Causes of form combine; ".
                "only they can be forgiven. A crosswalk, a tolerance or a declared rounding lets a difference of value pass. What is ".
                "marked as of a column is decided when all its cells are known.\n\n".
            self::CATALOGUE.
            "\n| id | meaning | | in the demo |\n| --- | --- | --- | --- |\n";
        $examples = $this->examples();
        foreach (CauseId::cases() as $id) {
            $kind = match (true) {
                $id->isOfForm() => 'form',
                $id->isOfWholeColumn() => 'of a column',
                default => '',
            };
            $page .= sprintf("| `%s` | %s | %s | %s |\n", $id->value, $id->meaning(), $kind, $examples[$id->value] ?? '');
        }

        return $page;
    }

    /** @return array<string, string> cause id => what became of a value in the demo */
    private function examples(): array
    {
        $examples = [];
        foreach (Wherrymoor::datasets() as $demo) {
            $workspace = Workspace::make();
            $paths = Wherrymoor::generator($demo)->write($workspace->path);
            $pairs = array_filter(
                $demo->columns->names,
                static fn(string $target, string $source): bool => $target !== '' && ! in_array($source, $demo->columns->key, true),
                ARRAY_FILTER_USE_BOTH,
            );
            $key = array_map(static fn(string $name): KeyColumn => new KeyColumn($name, $demo->columns->names[$name]), $demo->columns->key);
            if ($key === []) {
                throw new \LogicException('A dataset of the demo has a key.');
            }
            $plan = new Plan($key, array_map(ColumnPair::between(...), array_keys($pairs), array_values($pairs)));
            $findings = (new TallyRun(
                $plan,
                new Sides(
                    DelimitedReader::detecting($paths['source'], 'old'),
                    DelimitedReader::detecting($paths['target'], 'new'),
                ),
                $workspace->path,
            ))->findings();
            foreach ($findings as $row) {
                foreach ($row->cells as $cell) {
                    $examples[$cell->cause] ??= sprintf(
                        '`%s` became `%s`: %s',
                        $this->shown($cell->source),
                        $this->shown($cell->target),
                        CauseId::sentenceFor($cell->cause, $cell->facts),
                    );
                }
            }
            $workspace->remove();
        }

        return $examples;
    }

    private function commandLine(): string
    {
        $page = self::HEAD."# Command line\n\n`core/bin/nine-tally` compares, profiles and checks without the web application.\n";
        foreach ([new TallyCommand, new ProfileCommand, new AdviseCommand, new PlanCheckCommand, new CausesCommand] as $command) {
            $page .= $this->command($command);
        }
        $page .=
            "\n## Exit status\n\n- 0: all prepared rows agreed; rows that steps left out by decision are said\n- 1: differences were ".
                "found; a refused record is one\n- 2: input or plan is not usable; one message on standard error says what, where and ".
                "what to do, and nothing is written\n";
        $page .= self::FILES;
        $page .=
            "\n## Why a record is refused\n\n".
            implode('', array_map(static fn(RefusalReason $reason): string => "- `{$reason->value}`\n", RefusalReason::cases()));

        return $page;
    }

    private function errors(): string
    {
        $page =
            self::HEAD.
            "# Errors\n\nEach says what, where and what to do; the code is for programs. The examples speak of `moorings.csv`.\n\n| code ".
                "| message |\n| --- | --- |\n";
        $messages = [];
        foreach (self::ERRORS as $class) {
            foreach ((new \ReflectionClass($class))->getMethods(\ReflectionMethod::IS_PUBLIC | \ReflectionMethod::IS_STATIC) as $method) {
                $problem =
                    $method->isStatic() && $method->getDeclaringClass()->getName() === $class
                        ? $method->invokeArgs(null, array_map($this->example(...), $method->getParameters()))
                        : null;
                if ($problem instanceof NineTallyException) {
                    $messages[] = sprintf("| `%s` | %s |\n", $problem->code(), $this->shown($problem->getMessage()));
                }
            }
        }
        sort($messages);

        return $page.implode('', $messages);
    }

    private function example(\ReflectionParameter $parameter): mixed
    {
        return match ($parameter->getName()) {
            'file', 'owner' => 'moorings.csv',
            'column', 'name' => 'bassin',
            'existing' => ['basin', 'berth'],
            'columns' => ['fee (column 2)', 'fee (column 3)'],
            'kind' => 'a picture',
            'source' => 'Old system',
            'files' => 3,
            'count' => 20_000,
            'why' => 'every line is blank',
            'line' => 7,
            'pattern' => 'dd/MM/yy',
            'letters' => 'QQQ',
            'equation' => 'source: records read = refused + delivered',
            'measure' => 'sum',
            'difference' => '-412.66',
            'shares' => '-412.60',
            'left' => 12,
            'right' => 11,
            'folder' => '/data/findings',
            'path' => 'match-7',
            'problems' => [new Problem('/key', 'No key was given. Name the columns that tell one row from another, such as --key=basin.')],
            'errors', 'message' => 'The words of the worker.',
            default => throw new \LogicException("There is no example for \${$parameter->getName()}."),
        };
    }

    private function command(Command $command): string
    {
        $page = "\n## {$command->getName()}\n\n{$command->getDescription()}\n\n`nine-tally {$command->getSynopsis(true)}`\n\n";
        foreach ($command->getDefinition()->getArguments() as $argument) {
            $page .= "- `{$argument->getName()}`: {$argument->getDescription()}\n";
        }
        foreach ($command->getDefinition()->getOptions() as $option) {
            $default = $option->getDefault();
            $page .=
                "- `--{$option->getName()}`: {$option->getDescription()}".
                (is_string($default) ? "; `{$default}` unless given" : '').
                "\n";
        }

        return $page;
    }

    private function shown(string $value): string
    {
        return str_replace(['|', "\n", "\r"], ['\|', '⏎', '␍'], $value === '' ? ' ' : $value);
    }
}
