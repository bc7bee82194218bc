/**
 * Sixty recipe texts made up for this test, in the ways people write them down: cards, blogs, spreadsheets, letters, lists
 * without a heading, one paragraph, rows broken by a mail program. Nothing here was copied, and nothing is to be cooked from.
 *
 * Beside each stands what a person reads in it, a fact a row:
 * `name`, `makes 7 half-pint`, `kind`, `set`, `pack`, `liquid`, `peel`, `cut`, `strain`;
 * `line` value[..value] unit ingredient [n%] [where] [per amount of what];
 * `wait` minutes..minutes; `cook` what it is cooked to; `headspace` inches; `process` [size] minutes.
 */
export const TEXTS: readonly [text: string, facts: string][] = [
  [
    `Red Plum Jam
Makes about 7 half-pints

4 1/2 lb red plums, stoned
7 cups sugar
1/2 cup water

Simmer the plums in the water until soft, about 10 minutes. Add the sugar and boil rapidly to the gelling point. Ladle into hot jars, leaving 1/4 inch headspace. Process 10 minutes in a boiling water bath.`,
    `name Red Plum Jam
makes 7 half-pint
kind jam
set nothing added
pack hot
line 9/2 lb plum
line 7 cup sugar
line 1/2 cup water
cook 10 min
cook gel
headspace 1/4
process 10`,
  ],
  [
    `STRAWBERRY JAM (POWDERED PECTIN)

INGREDIENTS:
- 5 cups crushed strawberries
- 1 pkg. (1 3/4 oz.) powdered pectin
- 7 cups sugar

DIRECTIONS:
1. Crush berries one layer at a time.
2. Stir in the pectin and bring to a full rolling boil.
3. Add sugar all at once. Boil hard 1 minute.
4. Fill hot half-pint jars to within 1/4" of the top.
5. Process 10 min.

YIELD: 8 half pints`,
    `name STRAWBERRY JAM (POWDERED PECTIN)
makes 8 half-pint
kind jam
set ordinary pectin
pack hot
cut crushed
line 5 cup strawberry
line 1 package pectin-powder
line 7 cup sugar
cook 1 min
headspace 1/4
process 10`,
  ],
  [
    `Dilly beans
Yield: 8 pints

4 lbs fresh green beans
8 heads fresh dill
8 cloves garlic (optional)
1/2 cup canning salt
4 cups white vinegar (5%)
4 cups water
1 tsp hot red pepper flakes

Trim the beans to fit the jars. Put a head of dill and a garlic clove in each jar. Boil the vinegar, water, salt and pepper flakes. Pack beans raw, pour over the hot brine, leaving 1/2-inch headspace. Process pints 5 minutes in boiling water.`,
    `name Dilly beans
makes 8 pint
kind pickle
set not set
pack raw
liquid vinegar brine
line 4 lb snap-bean
line 8 head dill
line 8 clove garlic
line 1/2 cup canning-salt
line 4 cup white-vinegar 5%
line 4 cup water
line 1 tsp pepper-flakes
headspace 1/2
process pint 5`,
  ],
  [
    `Bread and Butter Slices

You will need:
6 lb pickling cucumbers, 4 to 5 inch
8 cups onions, thinly sliced
1/2 c canning salt
4 c vinegar, 5% acidity
4 1/2 c sugar
2 Tbsp mustard seed
1 1/2 Tbsp celery seed
1 Tbsp ground turmeric

Wash cucumbers, cut 1/16 inch off the blossom end, slice.
Combine cucumbers and onions with the salt, cover with ice, refrigerate 3 to 4 hours.
Boil vinegar, sugar and spices 10 minutes.
Drain and add the vegetables, reheat to boiling.
Fill hot pint jars, 1/2 inch headspace.
Process pints or quarts 10 minutes.

Makes 8 pints`,
    `name Bread and Butter Slices
makes 8 pint
kind pickle
set not set
pack hot
cut sliced
liquid vinegar brine
line 6 lb cucumber
line 8 cup onion
line 1/2 cup canning-salt
line 4 cup white-vinegar 5%
line 9/2 cup sugar
line 2 tbsp mustard-seed
line 3/2 tbsp celery-seed
line 1 tbsp turmeric
wait 180..240
cook 10 min
headspace 1/2
process pint 10
process quart 10`,
  ],
  [
    `Tomato juice, plain

23 lb ripe tomatoes
Acid: 2 Tbsp bottled lemon juice per quart
1 tsp canning salt per quart, optional

Wash, core and quarter. Crush and heat to boiling, simmer 5 minutes. Press through a sieve to take off skins and seeds. Heat again to a boil. Put lemon juice and salt in each jar. Fill, leaving 1/2 in. headspace.
Process quarts 40 min, pints 35 min.
Makes 7 quarts.`,
    `name Tomato juice, plain
makes 7 quart
kind juice
set not set
pack hot
cut juice
strain strained
line 23 lb tomato
line 1 tbsp bottled-lemon each jar
line 1/2 tsp canning-salt each jar
cook 5 min
headspace 1/2
process quart 40
process pint 35`,
  ],
  [
    `Grape Jelly without pectin

3 1/2 lb Concord grapes
1/2 cup water
3/4 cup sugar for each cup of juice

Method
Crush the grapes, add water, boil 10 minutes.
Pour into a damp jelly bag and let drip overnight in a cool place.
Strain again through two layers of cheesecloth. Measure the juice.
Add 3/4 cup sugar for each cup of juice and boil to 8 °F above the boiling point of water.
Skim, pour into hot sterile half-pint jars, headspace 1/4 in.
Process 5 min.`,
    `name Grape Jelly without pectin
kind jelly
set nothing added
pack hot
cut juice
strain strained
line 7/2 lb grape
line 1/2 cup water
line 3/4 cup sugar per 1 cup juice
cook 10 min
wait overnight
cook gel
headspace 1/4
process 5`,
  ],
  [
    `# Peach Salsa

**Ingredients**

* 6 cups diced hard peaches, peeled
* 1 1/4 cups chopped red onion
* 4 jalapeño peppers, chopped
* 1 red bell pepper, chopped
* 1/2 cup chopped cilantro
* 1/2 cup white vinegar
* 2 tablespoons honey
* 3 cloves garlic, minced
* 1 1/2 teaspoons cumin

**Instructions**

1. Put everything but the cilantro into a pot.
2. Bring to a boil and simmer 5 minutes, stirring.
3. Stir in the cilantro.
4. Ladle into hot half-pint jars. Leave 1/2 inch.
5. Process 15 minutes.

*Makes 8 half-pints*`,
    `name Peach Salsa
makes 8 half-pint
kind salsa
set not set
pack hot
peel peeled
cut chopped
line 6 cup peach
line 5/4 cup red-onion
line 4 each jalapeno
line 1 each bell-pepper
line 1/2 cup cilantro
line 1/2 cup white-vinegar 5%
line 2 tbsp honey
line 3 clove garlic
line 3/2 tsp cumin
cook 5 min
headspace 1/2
process 15`,
  ],
  [
    `Apple Butter

8 lb apples
2 c cider
2 c cider vinegar
2 1/4 c white sugar
2 1/4 c packed brown sugar
2 Tbsp ground cinnamon
1 Tbsp ground cloves

Wash, stem, quarter and core the apples. Cook slowly in cider and vinegar until soft. Press through a food mill. Cook pulp with sugar and spices, stirring often, until it mounds on a spoon. Fill hot into half-pint or pint jars, 1/4 inch headspace. Process 10 minutes. Yield: about 8 to 9 pints`,
    `name Apple Butter
makes 8 pint
kind fruit butter
set nothing added
pack hot
cut puréed
strain strained
line 8 lb apple
line 2 cup apple-juice
line 2 cup cider-vinegar 5%
line 9/4 cup sugar
line 9/4 cup brown-sugar
line 2 tbsp cinnamon
line 1 tbsp clove-ground
cook look
cook look
headspace 1/4
process 10`,
  ],
  [
    `Himbeersirup is what Oma called it. Raspberry Syrup:

6 1/2 cups raspberries
6 3/4 cups sugar

Crush raspberries in a saucepan. Heat to boiling and simmer 5 to 10 minutes until soft. Strain hot through a colander and drain until cool enough to handle. Strain through a jelly bag. Discard the dry pulp. Combine the juice with the sugar, bring to a boil, simmer 1 minute. Skim. Fill hot into clean half-pint or pint jars, leaving 1/2-inch headspace. Process half-pints or pints 10 minutes. Makes 9 half-pints.`,
    `kind syrup
makes 9 half-pint
set not set
pack hot
strain strained
line 13/2 cup raspberry
line 27/4 cup sugar
cook 5..10 min
cook 1 min
headspace 1/2
process half-pint 10
process pint 10`,
  ],
  [
    `Apple Pie Filling (7 quarts)

6 quarts blanched, sliced fresh apples
5 1/2 cups granulated sugar
1 1/2 cups cook-type canning starch
1 Tbsp cinnamon
2 1/2 cups cold water
5 cups apple juice
3/4 cup bottled lemon juice
1 tsp nutmeg

Blanch apples 1 minute in boiling water, 6 cups at a time. Combine sugar, starch and cinnamon with water and apple juice. Stir and cook on medium high heat until it thickens and begins to bubble. Add lemon juice and boil 1 minute, stirring. Fold in the drained apples at once. Fill hot jars without delay, leaving 1 inch headspace. Process pints or quarts 25 minutes.`,
    `name Apple Pie Filling (7 quarts)
makes 7 quart
kind pie filling
set modified starch
pack hot
cut sliced
line 6 quart apple
line 11/2 cup sugar
line 3/2 cup canning-starch
line 1 tbsp cinnamon
line 5/2 cup water
line 5 cup apple-juice
line 3/4 cup bottled-lemon
line 1 tsp nutmeg
cook 1 min
cook look
cook 1 min
headspace 1
process pint 25
process quart 25`,
  ],
  [
    `Sauerkraut

25 lb cabbage
3/4 cup canning salt

Work with about 5 pounds of cabbage at a time. Shred thin. Put in a crock, add 3 tablespoons salt and mix. Pack firmly until the salt draws juices. Store at 70° to 75°F; fermented in 3 to 4 weeks.
Hot pack: bring kraut and liquid slowly to a boil, fill jars, 1/2 inch headspace.
Process pints 10 minutes, quarts 15 minutes.
Yield: about 9 quarts`,
    `name Sauerkraut
makes 9 quart
kind sauerkraut
set not set
pack hot
line 25 lb cabbage
line 3/4 cup canning-salt
wait 30240..40320
headspace 1/2
process pint 10
process quart 15`,
  ],
  [
    `Peach halves in light syrup
(raw pack)

17 1/2 lb yellow peaches, peeled
2 1/4 cups sugar
10 1/2 cups water

Halve and pit. Boil water and sugar together. Pack peaches raw into jars, cut side down. Cover with hot syrup, 1/2 inch headspace. Process pints 25, quarts 30 minutes. 7 quarts`,
    `name Peach halves in light syrup
makes 7 quart
kind fruit in liquid
set not set
pack raw
liquid syrup
peel peeled
cut halved
line 35/2 lb peach
line 9/4 cup sugar
line 21/2 cup water
headspace 1/2
process pint 25
process quart 30`,
  ],
  [
    `PICKLED BEETS  --  from the card box

7 lb. beets, 2 to 2 1/2 in. across
4 c. vinegar (5%)
1 1/2 tsp. canning salt
2 c. sugar
2 c. water
2 cinnamon sticks
12 whole cloves
4 to 6 onions, 2 to 2 1/2 in., if wanted

Trim tops to 1 inch. Cover w/ boiling water & cook until tender (25 to 30 min.). Drain, cool, slip skins. Slice 1/4 in. thick.
Boil vinegar, salt, sugar and water with the spices in a cheesecloth bag. Add beets and onions, simmer 5 min. Take out the bag.
Fill hot jars, 1/2 in. headspace.
Process 30 min. pints or quarts.  MAKES 8 PTS.`,
    `makes 8 pint
kind pickle
set not set
pack hot
liquid vinegar brine
cut sliced
line 7 lb beet
line 4 cup white-vinegar 5%
line 3/2 tsp canning-salt
line 2 cup sugar
line 2 cup water
line 2 stick cinnamon-stick
line 12 each clove-whole
line 4..6 each onion
cook 25..30 min
cook 5 min
headspace 1/2
process pint 30
process quart 30`,
  ],
  [
    `Blueberry jam, low sugar

2 quarts blueberries
3 cups sugar
1 package low-sugar pectin
1/4 cup bottled lemon juice
1 cup water

Crush berries. Stir pectin and 1/2 cup of the sugar into the fruit with water and lemon juice. Bring to a rolling boil that cannot be stirred down. Add the remaining sugar, return to a full rolling boil and boil 1 minute. Fill, 1/4 inch headspace, process half-pints 10 minutes. Makes about 9 (8-oz) jars.`,
    `name Blueberry jam, low sugar
makes 9 half-pint
kind jam
set low-sugar pectin
pack hot
cut crushed
line 2 quart blueberry
line 3 cup sugar
line 1 package pectin-low-sugar
line 1/4 cup bottled-lemon
line 1 cup water
cook 1 min
headspace 1/4
process half-pint 10`,
  ],
  [
    `7-day sweet pickles
5 pounds small cucumbers
Boiling water to cover each day

1 quart cider vinegar (5 % acidity)
8 cups sugar
2 tablespoons pickling salt
2 tablespoons mixed pickling spice

Days 1-4: Wash, cover with boiling water, let stand 24 hours, drain and repeat each day.
Day 5: Cut into rings. Boil vinegar, sugar, salt and spice, pour over. Let stand 24 hours.
Day 6: Drain, reheat syrup, pour over.
Day 7: Bring syrup and cucumbers to a boil. Pack hot jars, 1/2 inch headspace, process pints 10 minutes.
Makes about 4 pints.`,
    `name 7-day sweet pickles
makes 4 pint
kind pickle
set not set
pack hot
liquid vinegar brine
line 5 lb cucumber
line 1 quart cider-vinegar 5%
line 8 cup sugar
line 2 tbsp canning-salt
line 2 tbsp pickling-spice
wait 1440
wait 1440
headspace 1/2
process pint 10`,
  ],
  [
    `Quantity\tUnit\tIngredient\tNotes
4\tcups\tapricots\tchopped
1/4\tcup\tbottled lemon juice\t
6\tcups\tsugar\t
1\tpouch (3 oz)\tliquid pectin\t

Apricot jam - half-pints - yield 7
Boil fruit, juice and sugar 1 min at a full rolling boil. Off the heat stir in pectin. Skim. Fill to 1/4 in. Process 10 min.`,
    `name Apricot jam
makes 7 half-pint
kind jam
set ordinary pectin
pack hot
line 4 cup apricot
line 1/4 cup bottled-lemon
line 6 cup sugar
line 1 package pectin-liquid
cook 1 min
headspace 1/4
process 10`,
  ],
  [
    `Corn Relish

Ingredients (makes 9 pints)
10 cups fresh whole kernel corn
2 1/2 cups diced sweet red peppers
2 1/2 cups diced sweet green peppers
2 1/2 cups chopped celery
1 1/4 cups diced onions
1 3/4 cups sugar
5 cups vinegar (5 percent)
2 1/2 tbsp canning or pickling salt
2 1/2 tsp celery seed
2 1/2 tbsp dry mustard
1 1/4 tsp turmeric

Steps
1) Boil ears of corn 5 minutes, dip in cold water, cut from the cob.
2) Combine peppers, celery, onions, sugar, vinegar, salt and celery seed. Bring to boil, simmer 5 minutes.
3) Mix mustard and turmeric in 1/2 cup of the simmered mixture, add with the corn and simmer another 5 minutes.
4) Fill jars with hot mixture, 1/2-inch headspace.
5) Process half-pints or pints 15 minutes.`,
    `name Corn Relish
makes 9 pint
kind relish
set not set
pack hot
line 10 cup corn
line 5/2 cup bell-pepper
line 5/2 cup bell-pepper
line 5/2 cup celery
line 5/4 cup onion
line 7/4 cup sugar
line 5 cup white-vinegar 5%
line 5/2 tbsp canning-salt
line 5/2 tsp celery-seed
line 5/2 tbsp mustard-powder
line 5/4 tsp turmeric
cook 5 min
cook 5 min
cook 5 min
headspace 1/2
process half-pint 15
process pint 15`,
  ],
  [
    `Rhubarb & ginger jam (metric)

1 kg rhubarb, sliced
900 g jam sugar without pectin
juice of 2 lemons
50 g crystallised ginger, chopped

Layer rhubarb and sugar in a bowl, leave to stand for 12 hours or overnight.
Bring slowly to the boil, then boil hard until setting point, 15-20 mins.
Pot into six 250 ml jars and seal.`,
    `name Rhubarb & ginger jam (metric)
makes 6 half-pint
kind jam
set nothing added
pack hot
cut sliced
line 1 kg rhubarb
line 900 g sugar
line 50 g ginger-candied
wait overnight
cook gel`,
  ],
  [
    `Spiced crabapples

5 lb crabapples
4 1/2 cups apple vinegar (5%)
3 3/4 cups water
7 1/2 cups sugar
4 tsp whole cloves
4 cinnamon sticks
six 1/2-inch cubes fresh ginger root

Remove blossom petals, leave the stems on. Puncture skins. Boil vinegar, water and sugar. Tie spices in a spice bag, immerse with 1/3 of the fruit at a time 2 minutes. Put cooked apples and the bag in a crock, add hot syrup, cover and let stand overnight. Remove bag, drain syrup and reheat to boiling. Fill pint jars with apples and hot syrup, 1/2 inch headspace. Process pints 20 minutes. Yield 9 pints.`,
    `name Spiced crabapples
makes 9 pint
kind pickle
pack hot
cut whole
line 5 lb crabapple
line 9/2 cup cider-vinegar 5%
line 15/4 cup water
line 15/2 cup sugar
line 4 tsp clove-whole
line 4 stick cinnamon-stick
line 6 each ginger
cook 2 min
wait overnight
headspace 1/2
process pint 20`,
  ],
  [
    `Ketchup

24 lb tomatoes, 3 cups chopped onions, 3/4 tsp cayenne, 3 cups cider vinegar (5%), 4 tsp whole cloves, 3 sticks cinnamon, 1 1/2 tsp whole allspice, 3 Tbsp celery seed, 1 1/2 cups sugar, 1/4 cup salt

Peel tomatoes, put in a kettle with onions and cayenne. Boil and simmer 20 minutes. Put spices in a bag in vinegar, bring to boil, let stand 20 minutes. Combine spiced vinegar with tomatoes, boil 30 minutes. Press through a mill. Add sugar and salt, boil gently until volume is reduced by half. Fill pints, 1/8 inch headspace. Process pints 15 minutes. Makes 6 to 7 pints.`,
    `name Ketchup
makes 6 pint
kind ketchup
set not set
pack hot
peel peeled
line 24 lb tomato
line 3 cup onion
line 3/4 tsp cayenne
line 3 cup cider-vinegar 5%
line 4 tsp clove-whole
line 3 stick cinnamon-stick
line 3/2 tsp allspice
line 3 tbsp celery-seed
line 3/2 cup sugar
line 1/4 cup salt
cook 20 min
wait 20
cook 30 min
cook reduced 0.5
headspace 1/8
process pint 15`,
  ],
  [
    `Cherry jelly
yield 6 half-pints

3 1/2 cups cherry juice
4 1/2 cups sugar
2 pouches (3 oz each) liquid pectin

Combine juice and sugar. Bring to a full rolling boil over high heat, stirring. Stir in pectin at once. Return to a full rolling boil and boil hard 1 minute. Remove from heat, skim, fill sterile half-pint jars, leaving 1/4-inch headspace. Process 5 minutes.`,
    `name Cherry jelly
makes 6 half-pint
kind jelly
set ordinary pectin
pack hot
line 9/2 cup sugar
line 2 package pectin-liquid
cook 1 min
headspace 1/4
process 5`,
  ],
  [
    `Zucchini pickles (bread & butter style)

• 16 cups fresh zucchini, sliced
• 4 cups onions, thinly sliced
• ½ cup canning or pickling salt
• 4 cups white vinegar (5%)
• 2 cups sugar
• 4 tbsp mustard seed
• 2 tbsp celery seed
• 2 tsp ground turmeric

Cover zucchini and onion slices with 1 inch of water and the salt. Let stand 2 hours and drain thoroughly.
Combine vinegar, sugar and spices. Bring to a boil and add zucchini and onions. Simmer 5 minutes.
Fill hot pint jars with mixture and pickling solution, leaving 1/2-inch headspace.
Process pints 10 minutes, quarts 10 minutes.
Yield: About 8 to 9 pints`,
    `name Zucchini pickles (bread & butter style)
makes 8 pint
kind pickle
set not set
pack hot
cut sliced
liquid vinegar brine
line 16 cup zucchini
line 4 cup onion
line 1/2 cup canning-salt
line 4 cup white-vinegar 5%
line 2 cup sugar
line 4 tbsp mustard-seed
line 2 tbsp celery-seed
line 2 tsp turmeric
wait 120
cook 5 min
headspace 1/2
process pint 10
process quart 10`,
  ],
  [
    `Pears in juice

17 lb pears
1/2 gallon white grape juice

Peel, halve and core; keep in water with ascorbic acid.
Boil drained pears 5 minutes in the juice.
Hot pack into quart jars; cover with boiling juice; headspace 1/2".
Process 20 min pints, 25 min quarts.
Makes 7 qts.`,
    `name Pears in juice
makes 7 quart
kind fruit in liquid
set not set
pack hot
liquid juice
peel peeled
cut halved
line 17 lb pear
line 1/2 gallon grape-juice
cook 5 min
headspace 1/2
process pint 20
process quart 25`,
  ],
  [
    `TOMATO SAUCE, STANDARD

Procedure: Prepare and press as for juice. Simmer in a large saucepan until sauce reaches desired consistency; boil until volume is reduced by about one-third for thin sauce, or by one-half for thick sauce. Add bottled lemon juice or citric acid to jars. Add 1 teaspoon of salt per quart, if desired. Fill jars, leaving 1/4-inch headspace. Process pints 35 minutes, quarts 40 minutes.

Ingredients
46 pounds tomatoes
bottled lemon juice, 2 tablespoons per quart
canning salt 1 tsp per quart

Makes 7 quarts`,
    `name TOMATO SAUCE, STANDARD
makes 7 quart
kind tomato sauce
set not set
pack hot
line 46 lb tomato
line 1 tbsp bottled-lemon each jar
line 1/2 tsp canning-salt each jar
cook look
cook reduced 0.33
headspace 1/4
process pint 35
process quart 40`,
  ],
  [
    `Orange Marmalade
-----------------
2 c. thinly sliced orange peel (about 10 medium)
1 qt. chopped orange pulp
1 c. thinly sliced lemon, seeded
1 1/2 qt. water
Sugar (about 6 c.)

Add water to fruit and peel. Simmer 5 min. Cover and let stand 12 to 18 hours in a cool place. Cook over medium heat until peel is tender, about 1 hour. Measure fruit and liquid. Add 1 c. sugar for each cup of fruit and liquid. Bring slowly to a boil, then cook rapidly to the jellying point, about 25 min. Pour hot into hot half-pint jars, 1/4 in. headspace. Process 10 min. Makes about 7 half-pints.`,
    `name Orange Marmalade
makes 7 half-pint
kind marmalade
set nothing added
pack hot
line 2 cup orange-zest
line 1 quart orange
line 1 cup lemon
line 3/2 quart water
line 6 cup sugar
cook 5 min
wait 720..1080
cook 60 min
cook gel
headspace 1/4
process 10`,
  ],
  [
    `From: Aunt Lou
Subject: the chow chow you asked about

Chow-Chow
4 cups chopped cabbage
3 cups chopped cauliflower
2 cups chopped onions
2 cups chopped green tomatoes
2 cups chopped sweet green pepper
1 cup chopped sweet red pepper
3 Tbsp salt
2 1/2 cups vinegar
1 1/2 cups sugar
2 tsp celery seed
2 tsp dry mustard
1 tsp mustard seed
1 tsp turmeric
1/2 tsp ginger

Mix the vegetables with the salt and let stand 4 to 6 hours in a cool place. Drain well. Combine vinegar, sugar and spices, simmer 10 minutes. Add vegetables, simmer 10 minutes. Bring to a boil. Pack hot into pint jars leaving 1/4 inch. Process 10 minutes. It makes 4 pints.`,
    `makes 4 pint
kind relish
set not set
pack hot
line 4 cup cabbage
line 3 cup cauliflower
line 2 cup onion
line 2 cup green-tomato
line 2 cup bell-pepper
line 1 cup bell-pepper
line 3 tbsp salt
line 5/2 cup white-vinegar 5%
line 3/2 cup sugar
line 2 tsp celery-seed
line 2 tsp mustard-powder
line 1 tsp mustard-seed
line 1 tsp turmeric
line 1/2 tsp ginger-ground
wait 240..360
cook 10 min
cook 10 min
headspace 1/4
process 10`,
  ],
  [
    `Quick dill chips | makes 7 pints

| Amount | Ingredient | Preparation |
|--------|------------|-------------|
| 8 lb | pickling cucumbers | sliced 1/4 inch |
| 2 gal | water | |
| 1 1/4 cup | canning salt | divided |
| 1 1/2 qt | vinegar (5%) | |
| 1/4 cup | sugar | |
| 2 qt | water | |
| 2 Tbsp | whole mixed pickling spice | |
| 14 heads | fresh dill | 2 per jar |

Dissolve 3/4 cup salt in 2 gal water, pour over cucumbers, let stand 12 hours, drain.
Combine vinegar, 1/2 cup salt, sugar and 2 quarts water with the spices tied in a cloth, heat to boiling.
Fill jars with cucumbers. Add dill to each jar and cover with boiling solution, leaving 1/2-inch headspace.
Process pints 10 min.`,
    `makes 7 pint
kind pickle
set not set
pack raw
cut sliced
liquid vinegar brine
line 8 lb cucumber
line 2 gallon water
line 5/4 cup canning-salt
line 3/2 quart white-vinegar 5%
line 1/4 cup sugar
line 2 quart water
line 2 tbsp pickling-spice
line 2 head dill each jar
wait 720
headspace 1/2
process pint 10`,
  ],
  [
    `Fig preserves: 5 pounds figs, 4 cups sugar, 1/4 cup bottled lemon juice per quart of figs, 3 cups water.

Wash figs; do not peel. Boil sugar and water until it dissolves, add figs and cook rapidly until figs are clear, stirring. Cover and let stand 12 to 24 hours in the refrigerator. Reheat to boiling and pack hot into half-pint jars with 1/4 inch headspace. Process 10 minutes. About 8 half pints.`,
    `kind preserves
set nothing added
pack hot
peel skins on
line 5 lb fig
line 4 cup sugar
line 3 cup water
cook look
wait 720..1440
headspace 1/4
process 10
makes 8 half-pint`,
  ],
  [
    `Grandma's pear butter  (do not lose!!)
20 med. pears
4 C. sugar
1 t. grated orange rind
1/2 t. nutmeg
1/3 C. orange juice

Cook pears till soft w/ a little water. Press thru sieve. Measure 2 qts pulp. Add the rest, cook till thick enough to round up in a spoon. Stir often! Pour hot in hot jars, 1/4 in head space. 10 min. in a boiling-water bath. ~8 half pts`,
    `kind fruit butter
set nothing added
makes 8 half-pint
pack hot
strain strained
line 20 each pear
line 4 cup sugar
line 1 tsp orange-zest
line 1/2 tsp nutmeg
line 1/3 cup orange-juice
cook look
cook look
headspace 1/4
process 10`,
  ],
  [
    `Tomato Salsa with paste tomatoes

7 quarts peeled, cored, chopped paste tomatoes
4 cups seeded, chopped long green chiles
5 cups chopped onion
1/2 cup seeded, finely chopped jalapeño peppers
6 cloves garlic, finely chopped
2 cups bottled lemon or lime juice
2 tablespoons salt
1 tablespoon black pepper
2 tablespoons ground cumin (optional)
3 tablespoons oregano leaves (optional)
2 tablespoons fresh cilantro (optional)

Combine all ingredients except cumin, oregano and cilantro in a large pot and bring to a boil, stirring frequently, then reduce heat and simmer 10 minutes. Add spices and simmer for another 20 minutes, stirring occasionally. Ladle hot into pint jars, leaving 1/2 inch headspace. Process pints 15 minutes. Makes 16 to 18 pints.`,
    `name Tomato Salsa with paste tomatoes
makes 16 pint
kind salsa
set not set
pack hot
peel peeled
cut chopped
line 7 quart tomato
line 4 cup long-green-chile
line 5 cup onion
line 1/2 cup jalapeno
line 6 clove garlic
line 2 tbsp salt
line 1 tbsp black-pepper
line 2 tbsp cumin
line 2 tbsp cilantro
cook 10 min
cook 20 min
headspace 1/2
process pint 15`,
  ],
  [
    `Raspberry jam - no pectin - small batch

raspberries    900 g
sugar          700 g
bottled lemon juice   30 ml

1. Crush the raspberries with half the sugar. Cover; macerate overnight in the refrigerator.
2. Add the remaining sugar and the lemon juice. Boil hard to 105 °C, about 12 minutes.
3. Fill 4 x 250 ml jars leaving 6 mm headspace.
4. Process 10 minutes.`,
    `kind jam
set nothing added
pack hot
cut crushed
makes 4 half-pint
line 900 g raspberry
line 700 g sugar
line 30 mL bottled-lemon
wait overnight
headspace 0.24
process 10`,
  ],
  [
    `Pickled Three-Bean Salad

1 1/2 cups cut and blanched green beans
1 1/2 cups canned, drained red kidney beans
1 cup canned, drained garbanzo beans
1/2 cup peeled and thinly sliced onion (1 medium)
1/2 cup trimmed and thinly sliced celery
1/2 cup sliced green pepper
1/2 cup white vinegar (5%)
1/4 cup bottled lemon juice
3/4 cup sugar
1/4 cup oil
1/2 tsp canning salt
1 1/4 cups water

Blanch the green beans 3 minutes. Combine vinegar, lemon juice, sugar and water and bring to a boil. Remove from heat. Add oil and salt and mix well. Add beans, onions, celery and pepper and bring to a simmer. Marinate 12 to 14 hours in the refrigerator, then heat to a boil. Fill clean jars with solids, add hot liquid, 1/2-inch headspace. Process half-pints or pints 15 minutes. Yield: about 5 to 6 half-pints`,
    `name Pickled Three-Bean Salad
makes 5 half-pint
kind pickle
set not set
pack hot
liquid vinegar brine
line 3/2 cup snap-bean
line 3/2 cup kidney-bean
line 1 cup garbanzo
line 1/2 cup onion
line 1/2 cup celery
line 1/2 cup bell-pepper
line 1/2 cup white-vinegar 5%
line 1/4 cup bottled-lemon
line 3/4 cup sugar
line 1/4 cup oil
line 1/2 tsp canning-salt
line 5/4 cup water
cook 3 min
wait 720..840
headspace 1/2
process half-pint 15
process pint 15`,
  ],
  [
    `Cranberry sauce, jellied
Makes about 4 half pints

1 quart cranberries
1 cup water
2 cups sugar

Cook cranberries in water until soft. Press through a fine sieve. Add sugar and boil 3 minutes. Pack hot into jars, leaving 1/2 inch headspace. Process 15 minutes (half-pints or pints).`,
    `name Cranberry sauce, jellied
makes 4 half-pint
pack hot
strain strained
line 1 quart cranberry
line 1 cup water
line 2 cup sugar
cook look
cook 3 min
headspace 1/2
process half-pint 15
process pint 15`,
  ],
  [
    `Applesauce!

Ingredients:
\u2610 21 lbs apples
\u2610 sugar to taste, 1/8 cup per quart

Directions:
Step 1: Wash, peel and core. Place in an 8-10 quart pot with 1/2 cup water.
Step 2: Heat quickly until tender (5 to 20 minutes).
Step 3: Press through a sieve or food mill if you like it smooth.
Step 4: Reheat to boiling. Fill jars with hot sauce, leaving 1/2-inch headspace.
Step 5: Process pints 15 minutes, quarts 20 minutes.

Yields 7 quarts.`,
    `name Applesauce!
makes 7 quart
kind purée
set not set
pack hot
peel peeled
line 21 lb apple
line 1/16 cup sugar each jar
cook 5..20 min
headspace 1/2
process pint 15
process quart 20`,
  ],
  [
    `Gooseberry & elderflower jam

Makes 5 x 1lb jars
1.5kg/3lb 5oz gooseberries, topped and tailed
500ml/18fl oz water
1.5kg/3lb 5oz granulated sugar

Simmer the gooseberries in the water for 15 minutes until soft. Add the sugar and stir until dissolved. Boil rapidly for 10-15 minutes until setting point is reached (test on a cold saucer). Pot into sterilised jars.`,
    `name Gooseberry & elderflower jam
kind jam
set nothing added
pack hot
line 3/2 kg gooseberry
line 500 mL water
line 3/2 kg sugar
cook 15 min
cook gel`,
  ],
  [
    `PEPPER JELLY (HOT)

1 3/4 c red bell peppers, ground
3/4 c hot peppers, ground (wear gloves)
6 1/2 c sugar
1 1/2 c cider vinegar, 5%
1 bottle (6 oz) liquid pectin

Mix all but the pectin. Boil 5 minutes. Strain through a jelly bag if you want it clear. Add pectin, boil hard 1 minute. Fill sterile half pints to 1/4 inch, process 5 minutes. 6 half pints.`,
    `name PEPPER JELLY (HOT)
makes 6 half-pint
kind jelly
set ordinary pectin
pack hot
line 7/4 cup bell-pepper
line 3/4 cup hot-pepper
line 13/2 cup sugar
line 3/2 cup cider-vinegar 5%
cook 5 min
cook 1 min
headspace 1/4
process half-pint 5`,
  ],
  [
    `Garlic dill pickles, low temperature

4 lb pickling cucumbers
1 quart vinegar 5%
1 quart water
1/3 cup pickling salt
2 cloves garlic in each jar
1 head dill per jar
1/4 tsp peppercorns each jar

Place cucumbers in cold water and ice, 2 hours. Pack raw. Cover with brine heated to boiling; 1/2 inch headspace. Put jars in warm water and heat to 180 to 185°F; hold there for 30 minutes. Check with a thermometer.
Makes 4 quarts`,
    `name Garlic dill pickles, low temperature
makes 4 quart
kind pickle
set not set
pack raw
liquid vinegar brine
line 4 lb cucumber
line 1 quart white-vinegar 5%
line 1 quart water
line 1/3 cup canning-salt
line 2 clove garlic each jar
line 1 head dill each jar
line 1/4 tsp peppercorn each jar
wait 120
cook 85 C hold 30
headspace 1/2`,
  ],
  [
    `Blackberry syrup for the market

For the juice
3 lb blackberries
1 cup water

For the syrup
1 cup sugar to each cup of juice
2 tablespoons bottled lemon juice

Heat berries and water to 180°F, mash. Drip through a jelly bag 2 hours. Measure the juice. Bring juice and sugar to a boil; boil 1 minute. Fill half-pints leaving 1/4 inch. Process 10 minutes.
About 5 half-pints.`,
    `name Blackberry syrup for the market
makes 5 half-pint
kind syrup
set not set
pack hot
strain strained
line 3 lb blackberry
line 1 cup water
line 1 cup sugar per 1 cup juice
line 2 tbsp bottled-lemon
cook 82 C
wait 120
cook 1 min
headspace 1/4
process 10`,
  ],
  [
    `Whole tomatoes in water

3 lb tomatoes per quart jar; 21 lb for 7 quarts

21 lb tomatoes
2 Tbsp bottled lemon juice per quart
1 teaspoon salt per quart (optional)
water

Dip in boiling water 30 to 60 seconds, slip off skins, core. Boil the tomatoes in water to cover, gently 5 minutes. Add lemon juice and salt to each jar. Fill with hot tomatoes and cooking liquid, leaving 1/2-inch headspace. Process pints 40 minutes, quarts 45.`,
    `name Whole tomatoes in water
makes 7 quart
kind tomatoes
set not set
pack hot
liquid water
peel peeled
line 21 lb tomato
line 1 tbsp bottled-lemon each jar
line 1/2 tsp salt each jar
cook 5 min
headspace 1/2
process pint 40
process quart 45`,
  ],
  [
    `Mixed pickled peppers
makes 9 pints

7 lb firm bell peppers
3 1/2 cups sugar
3 cups vinegar (5%)
3 cups water
9 cloves garlic
4 1/2 tsp canning salt

Wash, quarter, core, seed. Boil sugar, vinegar and water for 1 minute. Add peppers and bring to a boil. Place 1/2 clove of garlic and 1/4 tsp salt in each half-pint jar; double the amounts for pint jars. Add pepper strips and cover with hot vinegar mixture, leaving 1/2-inch headspace. Process 5 minutes.`,
    `name Mixed pickled peppers
makes 9 pint
kind pickle
set not set
pack hot
liquid vinegar brine
line 7 lb bell-pepper
line 7/2 cup sugar
line 3 cup white-vinegar 5%
line 3 cup water
line 9 clove garlic
line 9/2 tsp canning-salt
cook 1 min
headspace 1/2
process 5`,
  ],
  [
    `Damson Cheese-style Fruit Butter

2kg damsons
250ml water
sugar - 350g to each 500ml of pulp
1 tsp ground cinnamon

Wash the damsons. Cook gently with the water for 40 minutes or until
very soft, then rub through a sieve and discard the stones. Measure
the pulp and add the sugar. Cook slowly, stirring, until a spoon
leaves a trail. Fill hot into 250ml jars, leaving 6mm headspace.
Process for 10 minutes.

Makes 6 jars`,
    `kind fruit butter
set nothing added
pack hot
makes 6 half-pint
line 2 kg damson
line 250 mL water
line 350 g sugar per 500 mL pulp
line 1 tsp cinnamon
cook 40 min
cook look
headspace 0.24
process 10`,
  ],
  [
    `Hot Pepper Rings, pickled
Yield: 4 pints

3 lb hot peppers (banana, jalapeno)
5 cups vinegar (5 %)
1 cup water
1 Tbsp canning salt
2 Tbsp celery seed
4 Tbsp mustard seed

a) Slice peppers into 1/4 inch rings; wear gloves.
b) Bring vinegar, water, salt and seeds to a boil.
c) Pack raw rings tightly into hot pint jars. Cover with hot brine, leaving 1/2 inch headspace.
d) Process 10 minutes.`,
    `name Hot Pepper Rings, pickled
makes 4 pint
kind pickle
set not set
pack raw
cut sliced
liquid vinegar brine
line 3 lb hot-pepper
line 5 cup white-vinegar 5%
line 1 cup water
line 1 tbsp canning-salt
line 2 tbsp celery-seed
line 4 tbsp mustard-seed
headspace 1/2
process 10`,
  ],
  [
    `MINT JELLY

1 c. chopped fresh mint leaves
1 c. water
1/2 c. cider vinegar
3 1/2 c. sugar
4 drops green coloring
1 (3 oz.) pouch liquid pectin

Bring mint, water, vinegar and sugar to a full boil. Add pectin, boil hard 30 seconds. Strain through cheesecloth. Pour into sterile 4-oz jars, 1/4 inch headspace, process 5 minutes.
Makes about 6 (4 oz) jars.`,
    `name MINT JELLY
makes 6 quarter-pint
kind jelly
set ordinary pectin
pack hot
line 1 cup mint
line 1 cup water
line 1/2 cup cider-vinegar 5%
line 7/2 cup sugar
line 1 package pectin-liquid
cook 0.5 min
headspace 1/4
process 5`,
  ],
  [
    `Stewed Tomatoes? No -- crushed tomatoes, hot pack, no added liquid

22 pounds tomatoes (for 7 quarts)
bottled lemon juice (2 tablespoons in each quart)

Dip in boiling water, slip skins, trim, quarter. Heat one sixth quickly, crushing. Add the rest gradually, stirring. Boil gently 5 minutes. Lemon juice into the jars first. Fill with hot tomatoes, leaving 1/2 inch headspace. Process pints 35 minutes; quarts 45 minutes.`,
    `kind tomatoes
set not set
pack hot
makes 7 quart
peel peeled
line 22 lb tomato
line 1 tbsp bottled-lemon each jar
cook 5 min
headspace 1/2
process pint 35
process quart 45`,
  ],
  [
    `Onion relish (sweet)
8 half-pints

INGREDIENTS
8 cups diced sweet onions
2 tbsp salt
1 1/2 cups packed brown sugar
2 cups cider vinegar (5%)
1/2 tsp celery seed
1/2 tsp dry mustard

METHOD
Sprinkle onions with salt; let stand at room temperature for 1 hour. Drain, rinse.
Boil everything together, then simmer gently for 15 to 20 minutes.
Ladle hot relish into half-pint jars, headspace 1/2 inch.
Process 10 minutes`,
    `name Onion relish (sweet)
makes 8 half-pint
kind relish
set not set
pack hot
line 8 cup onion
line 2 tbsp salt
line 3/2 cup brown-sugar
line 2 cup cider-vinegar 5%
line 1/2 tsp celery-seed
line 1/2 tsp mustard-powder
wait 60
cook 15..20 min
headspace 1/2
process 10`,
  ],
  [
    `Mango chutney

11 cups chopped unripe mango
2 1/2 cups finely chopped yellow onion
2 1/2 Tbsp grated fresh ginger
1 1/2 Tbsp chopped fresh garlic
4 1/2 cups sugar
3 cups white distilled vinegar (5% acidity)
2 1/2 cups golden raisins
1 tsp canning salt
4 tsp chili powder

Wash and peel the mangoes, cut the flesh off the pit and chop coarsely.
Mix all in an 8- to 10-quart stockpot. Bring to a boil on high heat, stirring. Simmer 25 minutes, stirring often.
Fill hot into half-pint or pint jars, 1/2-inch headspace. Process half pints and pints 10 minutes.
Makes about 6 pints.`,
    `name Mango chutney
makes 6 pint
kind chutney
set not set
pack hot
peel peeled
line 11 cup green-mango
line 5/2 cup onion
line 5/2 tbsp ginger
line 3/2 tbsp garlic
line 9/2 cup sugar
line 3 cup white-vinegar 5%
line 5/2 cup raisin
line 1 tsp canning-salt
line 4 tsp chili-powder
cook 25 min
headspace 1/2
process half-pint 10
process pint 10`,
  ],
  [
    `Blueberries canned in water or juice

Use 12 lb berries for 7 quarts (canner load)

12 lb blueberries
water

Raw pack: put 1/2 cup hot water in each jar, fill with berries, shaking down, cover with hot water, leaving 1/2 inch headspace.
Process pints 15 min., quarts 20 min.`,
    `kind fruit in liquid
set not set
pack raw
liquid water
makes 7 quart
line 12 lb blueberry
headspace 1/2
process pint 15
process quart 20`,
  ],
  [
    `Red wine jelly :: 5 half pints

2 cups red wine
3 cups sugar
1 pouch liquid pectin (3 oz)

1. Warm wine and sugar to 185 F, stirring, until the sugar dissolves.
2. Off heat, stir in the pectin; skim.
3. Fill sterilized half pints to 1/4 inch.
4. Process 5 min.`,
    `makes 5 half-pint
kind jelly
set ordinary pectin
pack hot
line 2 cup wine
line 3 cup sugar
line 1 package pectin-liquid
cook 85 C
headspace 1/4
process 5`,
  ],
  [
    `Peter's Piccalilli

6 c chopped green tomatoes
1 1/2 c chopped sweet red peppers
1 1/2 c chopped green peppers
2 1/4 c chopped onions
7 1/2 c chopped cabbage
1/2 c canning salt
3 Tbl. whole mixed pickling spice
4 1/2 c vinegar (5%)
3 c brown sugar

Combine vegetables with the salt. Cover with hot water and let stand 12 hours. Drain and press in a clean white cloth to remove all possible liquid. Tie spices loosely in a bag, add to vinegar and sugar, and heat to a boil. Add vegetables and boil gently 30 minutes or until the volume is reduced by one-half. Remove spice bag. Fill hot sterile jars, 1/2-inch. Process half-pints or pints 5 minutes.
Yield nine half-pints`,
    `name Peter's Piccalilli
makes 9 half-pint
kind relish
set not set
pack hot
line 6 cup green-tomato
line 3/2 cup bell-pepper
line 3/2 cup bell-pepper
line 9/4 cup onion
line 15/2 cup cabbage
line 1/2 cup canning-salt
line 3 tbsp pickling-spice
line 9/2 cup white-vinegar 5%
line 3 cup brown-sugar
wait 720
cook reduced 0.5
headspace 1/2
process half-pint 5
process pint 5`,
  ],
  [
    `lemon curd-free lemon marmalade (ha)

lemons 2 lb
water 2 quarts
sugar 4 lb

slice lemons thin, soak overnight in the water, simmer till rinds are soft about 2 hours, add sugar, boil to set (wrinkles on a cold plate), jar it in half pints 1/4 in. headspace & water bath 10 min`,
    `kind marmalade
set nothing added
pack hot
cut sliced
line 2 lb lemon
line 2 quart water
line 4 lb sugar
wait overnight
headspace 1/4
process 10`,
  ],
  [
    `Carrot Pickles (spicy)

FOR THE JARS
2 3/4 lb carrots, peeled, in 1/2-inch coins

FOR THE BRINE
5 1/2 cups white vinegar (5%)
1 cup water
2 cups sugar
2 tsp canning salt

FOR EACH PINT JAR
2 tsp mustard seed
1 tsp celery seed

Simmer the carrots in the boiling brine until half-cooked, about 10 minutes. Spices into hot pint jars. Fill with hot carrots and liquid, leaving 1/2 inch headspace.
Process 15 minutes.

about 4 pints`,
    `name Carrot Pickles (spicy)
makes 4 pint
kind pickle
set not set
pack hot
peel peeled
liquid vinegar brine
line 11/4 lb carrot
line 11/2 cup white-vinegar 5%
line 1 cup water
line 2 cup sugar
line 2 tsp canning-salt
line 2 tsp mustard-seed each jar
line 1 tsp celery-seed each jar
cook 10 min
headspace 1/2
process 15`,
  ],
  [
    `Apple juice, canned

24 lb apples make about 7 quarts of juice.

Press fresh apples, refrigerate the juice for 24 to 48 hours. Without mixing, pour off the clear liquid, strain through a paper filter. Heat quickly, stirring, until it begins to boil. Fill at once into sterile pints or quarts, 1/4-inch headspace. Process pints and quarts 5 minutes; half-gallons 10 minutes.`,
    `name Apple juice, canned
makes 7 quart
kind juice
set not set
pack hot
strain strained
line 24 lb apple
wait 1440..2880
cook look
headspace 1/4
process pint 5
process quart 5
process half-gallon 10`,
  ],
  [
    `Cherry pie filling, 1 quart

3 1/3 cups sour cherries, fresh or thawed
1 cup granulated sugar
1/4 cup + 1 Tbsp cook-type canning starch
1 1/3 cups cold water
1 Tbsp + 1 tsp bottled lemon juice
1/8 tsp cinnamon (optional)

Hold pitted cherries in cold water. Combine sugar and starch, add water. Cook over medium-high heat until mixture thickens and begins to bubble. Add lemon juice and boil 1 minute, stirring. Fold in drained cherries immediately and fill jars without delay, leaving 1 inch headspace. Process pints and quarts 30 minutes.`,
    `name Cherry pie filling
makes 1 quart
kind pie filling
set modified starch
pack hot
line 10/3 cup sour-cherry
line 1 cup sugar
line 5/16 cup canning-starch
line 4/3 cup water
line 4/3 tbsp bottled-lemon
line 1/8 tsp cinnamon
cook look
cook 1 min
headspace 1
process pint 30
process quart 30`,
  ],
  [
    `Sweet gherkins
7 lb cucumbers (1-1/2 inch or less)
1/2 cup canning salt
8 cups sugar
6 cups vinegar (5%)
3/4 tsp turmeric
2 tsp celery seed
2 tsp whole mixed pickling spice
2 cinnamon sticks
2 tsp vanilla extract (optional)

Cut off blossom ends.
Morning: cover with boiling water.
6-8 hours later, and on the second day, drain and cover with 6 quarts of fresh boiling water with 1/4 cup salt.
Third day: drain and prick with a fork. Bring 3 cups vinegar, 3 cups sugar and the spices to a boil, pour over. Let stand 6 to 8 hours.
Fourth day: Heat the syrup, pack jars with the pickles, cover with hot syrup, 1/2 inch headspace.
Process pints 5 minutes.
Makes 6 to 7 pints`,
    `name Sweet gherkins
makes 6 pint
kind pickle
set not set
liquid vinegar brine
line 7 lb cucumber
line 1/2 cup canning-salt
line 8 cup sugar
line 6 cup white-vinegar 5%
line 3/4 tsp turmeric
line 2 tsp celery-seed
line 2 tsp pickling-spice
line 2 stick cinnamon-stick
line 2 tsp vanilla-extract
wait 360..480
headspace 1/2
process pint 5`,
  ],
  [
    `Plum conserve (card no. 14)

5 lb. pitted plums
1 lb. raisins
3 oranges
10 c. sugar
2 c. walnuts

Chop it all but the nuts. Cook to jellying stage, 40-45 min. Add nuts last 5 min. Hot jars, 1/4 in. 10 minutes B.W.B. Gives 10 half pts.`,
    `makes 10 half-pint
kind preserves
set nothing added
pack hot
cut chopped
line 5 lb plum
line 1 lb raisin
line 3 each orange
line 10 cup sugar
line 2 cup walnut
cook gel
headspace 1/4`,
  ],
  [
    `Sugar-free peach spread
6 c peeled, crushed peaches
1 (20 oz) can crushed pineapple in juice
2 T bottled lemon juice
1 pkg no-sugar-needed pectin

Boil everything but the pectin 1 min. Stir in pectin, return to a rolling boil for 1 minute. Fill half-pints, 1/4" headspace; process 10 min. 7 or 8 half-pints`,
    `name Sugar-free peach spread
makes 7 half-pint
kind fruit spread
set low-sugar pectin
pack hot
peel peeled
cut crushed
line 6 cup peach
line 20 oz pineapple
line 2 tbsp bottled-lemon
line 1 package pectin-low-sugar
cook 1 min
cook 1 min
headspace 1/4
process half-pint 10`,
  ],
  [
    `Spaghetti sauce, meatless

30 lb tomatoes
1 cup chopped onions
5 cloves garlic, minced
1 cup chopped celery or green peppers
1 lb fresh mushrooms, sliced (optional)
4 1/2 tsp salt
2 Tbsp oregano
4 Tbsp minced parsley
2 tsp black pepper
1/4 cup brown sugar
1/4 cup vegetable oil

Sauté onions, garlic, celery and mushrooms in the oil. Combine with tomatoes, simmer uncovered until thick enough; the volume is reduced by nearly one-half. Fill jars, 1 inch headspace.
Process in a pressure canner at 11 pounds pressure: pints 20 minutes, quarts 25 minutes.
Makes about 9 pints`,
    `name Spaghetti sauce, meatless
makes 9 pint
kind tomato sauce
set not set
pack hot
line 30 lb tomato
line 1 cup onion
line 5 clove garlic
line 1 lb mushroom
line 9/2 tsp salt
line 2 tsp black-pepper
line 1/4 cup brown-sugar
line 1/4 cup oil
cook look
cook reduced 0.5
headspace 1
process pint 20
process quart 25`,
  ],
  [
    `Elderberry-apple jelly --- 3 quarts berries + 5 apples

3 quarts elderberries
5 tart apples
4 cups water
3/4 cup sugar for each cup juice

Boil the fruit in the water 15 minutes, mash.
Strain through a jelly bag, 3-4 hours.
Per cup of juice add the sugar.
Boil to 220 F.
Pour into half-pints; 1/4 inch; process 5.`,
    `kind jelly
set nothing added
pack hot
strain strained
line 3 quart elderberry
line 5 each apple
line 4 cup water
line 3/4 cup sugar per 1 cup juice
cook 15 min
wait 180..240
headspace 1/4`,
  ],
  [
    `Green tomato mincemeat-style pie filling

2 qt green tomatoes, chopped
1 Tbsp salt
1 orange, ground with the peel
2 1/2 qt apples, peeled and chopped
1 lb raisins
3 1/2 c brown sugar
1/2 c cider vinegar (5%)
2 tsp cinnamon
1 tsp nutmeg
1 tsp cloves
1/2 tsp ginger

Sprinkle salt over tomatoes; let stand 1 hr; drain. Cover w/ boiling water, let stand 5 min., drain. Mix all, boil slowly until thick, 1 to 1 1/2 h. Pack hot in pints or quarts leaving 1/2" headspace. Process 25 min. Makes 4-5 quarts`,
    `name Green tomato mincemeat-style pie filling
makes 4 quart
kind pie filling
pack hot
line 2 quart green-tomato
line 1 tbsp salt
line 1 each orange
line 5/2 quart apple
line 1 lb raisin
line 7/2 cup brown-sugar
line 1/2 cup cider-vinegar 5%
line 2 tsp cinnamon
line 1 tsp nutmeg
wait 60
wait 5
headspace 1/2
process 25`,
  ],
  [
    `PICKLED ASPARAGUS -- 7 PINT JARS

10 LB ASPARAGUS
7 LARGE CLOVES GARLIC
4 1/2 CUPS WATER
4 1/2 CUPS WHITE DISTILLED VINEGAR (5%)
7 SMALL HOT PEPPERS (OPTIONAL)
1/2 CUP CANNING SALT
3 TSP DILL SEED

TRIM SPEARS TO FIT. PUT A CLOVE OF GARLIC IN EACH JAR. PACK ASPARAGUS RAW, BLUNT END DOWN. COMBINE WATER, VINEGAR, PEPPERS, SALT AND DILL SEED, BRING TO A BOIL. POUR HOT BRINE OVER SPEARS, LEAVING 1/2-INCH HEADSPACE. PROCESS PINTS 10 MINUTES.`,
    `name PICKLED ASPARAGUS
makes 7 pint
kind pickle
set not set
pack raw
liquid vinegar brine
line 10 lb asparagus
line 7 clove garlic
line 9/2 cup water
line 9/2 cup white-vinegar 5%
line 7 small hot-pepper
line 1/2 cup canning-salt
line 3 tsp dill-seed
headspace 1/2
process pint 10`,
  ],
];
