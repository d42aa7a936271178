<?php

declare(strict_types=1);

namespace Tests\Architecture;

use App\Questions\Answers;
use NineTally\Core\Matching\Spill\AtomicFile;
use PHPat\Selector\Selector;
use PHPat\Selector\SelectorInterface;
use PHPat\Test\Builder\Rule;
use PHPat\Test\PHPat;

/** The order in which the parts may know each other; PHPStan holds the code against it. */
final class WhoMayKnowWhom
{
    /** Each group of the engine may use the groups before it. */
    private const CORE = [
        ['Row', 'Value', 'Ruling'],
        ['Comparison'],
        ['Wording'],
        ['Intake', 'Cause', 'Repeats', 'Measure'],
        ['Matching', 'Profile', 'Likeness'],
        ['Preparation'],
        ['Limits'],
        ['Plan', 'Advice'],
        ['Tally'],
        ['Report', 'Seal'],
        ['Command'],
    ];

    public function test_core_names_no_framework_and_no_application(): Rule
    {
        return PHPat::rule()
            ->classes(Selector::inNamespace('NineTally\Core'))
            ->shouldNotDependOn()
            ->classes(Selector::inNamespace('App'), Selector::inNamespace('Illuminate'), Selector::inNamespace('Database'))
            ->because('the engine runs without the web application');
    }

    /** @return iterable<string, Rule> */
    public function test_a_group_of_core_knows_only_the_groups_before_it(): iterable
    {
        for ($place = 0; $place < count(self::CORE) - 1; $place++) {
            yield implode(' and ', self::CORE[$place]) => PHPat::rule()
                ->classes(...$this->core(self::CORE[$place]))
                ->shouldNotDependOn()
                ->classes(...$this->core(array_merge(...array_slice(self::CORE, $place + 1))))
                ->because('later groups are built on earlier ones');
        }
    }

    public function test_the_package_for_workbooks_is_known_in_two_places(): Rule
    {
        return PHPat::rule()
            ->classes(Selector::inNamespace('NineTally\Core'), Selector::inNamespace('App'))
            ->excluding(Selector::inNamespace('NineTally\Core\Intake\Workbooks'), Selector::classname('App\Adapters\Storage\TextWorkbook'))
            ->shouldNotDependOn()
            ->classes(Selector::inNamespace('OpenSpout'))
            ->because('what it throws and warns of must become our words, and another may take its place');
    }

    public function test_models_know_no_action(): Rule
    {
        return PHPat::rule()
            ->classes(Selector::inNamespace('App\Models'))
            ->shouldNotDependOn()
            ->classes(
                Selector::inNamespace('App\Actions'),
                Selector::inNamespace('App\Queries'),
                Selector::inNamespace('App\Http'),
                Selector::inNamespace('App\Jobs'),
            )
            ->because('models are nouns');
    }

    public function test_actions_and_queries_know_no_controller(): Rule
    {
        return PHPat::rule()
            ->classes(Selector::inNamespace('App\Actions'), Selector::inNamespace('App\Adapters'))
            ->shouldNotDependOn()
            ->classes(
                Selector::inNamespace('App\Http\Controllers'),
                Selector::inNamespace('App\Http\Requests'),
                Selector::inNamespace('App\Http\Resources'),
            )
            ->because('what a person does is the same from the web, a job and the command line');
    }

    public function test_adapters_know_nothing_that_stands_on_them(): Rule
    {
        return PHPat::rule()
            ->classes(Selector::inNamespace('App\Adapters'))
            ->shouldNotDependOn()
            ->classes(
                Selector::inNamespace('App\Actions'),
                Selector::inNamespace('App\Queries'),
                Selector::inNamespace('App\Questions'),
                Selector::inNamespace('App\Jobs'),
                Selector::inNamespace('App\Http'),
            )
            ->because('storage, leases and readers serve whoever asks');
    }

    public function test_queries_change_nothing_by_others_and_know_no_request(): Rule
    {
        return PHPat::rule()
            ->classes(Selector::inNamespace('App\Queries'))
            ->shouldNotDependOn()
            ->classes(
                Selector::inNamespace('App\Actions'),
                Selector::inNamespace('App\Http'),
                Selector::inNamespace('App\Jobs'),
                Selector::classname(Answers::class),
                Selector::classname(AtomicFile::class),
            )
            ->because('whoever reads does not act, asks no worker for anything, and is asked by jobs and commands too');
    }

    public function test_how_rulings_are_kept_is_known_to_their_room_alone(): Rule
    {
        return PHPat::rule()
            ->classes(Selector::inNamespace('App'))
            ->excluding(Selector::inNamespace('App\Rulings'))
            ->shouldNotDependOn()
            ->classes(Selector::inNamespace('App\Rulings\Storage'))
            ->because('blocks and postings can be read and written in one way only, under the lock of the tally');
    }

    public function test_which_findings_are_meant_does_not_depend_on_how_they_are_shown(): Rule
    {
        return PHPat::rule()
            ->classes(Selector::inNamespace('App\Rulings\FindingSet'))
            ->shouldNotDependOn()
            ->classes(Selector::inNamespace('App\Queries\Review'))
            ->because('rulings, reports and files ask for findings too');
    }

    /**
     * @param  list<string>  $groups
     * @return list<SelectorInterface>
     */
    private function core(array $groups): array
    {
        return array_map(static fn(string $group): SelectorInterface => Selector::inNamespace("NineTally\\Core\\{$group}"), $groups);
    }
}
