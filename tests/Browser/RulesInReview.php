<?php

declare(strict_types=1);

namespace Tests\Browser;

/** Ruling as a person does it: a decision, then why. */
trait RulesInReview
{
    /** Decides by a key in the list, and says why. */
    protected function rule(string $key, string $reason): void
    {
        $this->keys($key);
        $this->see('Enter the ruling');
        $this->type('Reason', "{$reason}\n");
    }

    /** Rules on the first of a list, once its record is the one that is shown: what is asked goes when another comes into its place. */
    protected function ruleOn(string $finding, string $key, string $reason): void
    {
        $this->visible(
            '//section[@aria-label="The whole record"]//h2[contains(., '.$this->quoted($finding).')]',
            "the record of {$finding}",
        );
        $this->rule($key, $reason);
    }

    /** Says in the question about many what they are, and why. */
    protected function sayOfAll(string $decision, string $why): void
    {
        $this->visible('//label[normalize-space(.)='.$this->quoted($decision).']', "the choice \"{$decision}\"")->click();
        $this->type('Why', $why);
    }
}
